"""Light through a pane by pvlib: writes panes.csv, for tests/daylight.rs.

Sun's place, Haurwitz's clear sky, the angle of incidence and the even sky on an upright plane are pvlib's;
double glazing is ray by ray: every polarisation is followed through four faces until nothing is left. The
mean of each month's days, in mol/m2/d of PAR per m2 of pane, with half of a cloudless day's light.
Run it with pvlib 0.16: python panes.py > panes.csv
"""

import numpy as np
import pandas as pd
import pvlib

N, TAKES, PANE, FRAME = 1.526, 0.004, 4.0, 0.85
OF_CLOUDLESS, OVERCAST = 0.5, 0.3


def faces(r, taken):
    """What passes a stack of faces with reflectance r, a pane's glass taking its share: by matrices."""
    def join(a, b):
        (ta, ra, sa), (tb, rb, sb) = a, b  # through, sent back from the front, from the back
        d = 1 - sa * rb
        return ta * tb / d, ra + ta * ta * rb / d, sb + tb * tb * sa / d
    face, glass = (1 - r, r, r), (taken, 0.0, 0.0)
    stack = face
    for layer in [glass, face, face, glass, face]:
        stack = join(stack, layer)
    return stack[0]


def passes(cos):
    cos = max(1e-6, min(1.0, cos))
    sin = np.sqrt(1 - cos * cos)
    within = np.arcsin(sin / N)
    aoi = np.arccos(cos)
    if aoi < 1e-4:
        s = p = ((N - 1) / (N + 1)) ** 2
    else:
        s = (np.sin(within - aoi) / np.sin(within + aoi)) ** 2
        p = (np.tan(within - aoi) / np.tan(within + aoi)) ** 2
    taken = np.exp(-TAKES * PANE / np.cos(within))
    return FRAME * (faces(s, taken) + faces(p, taken)) / 2


def sky_share():
    """Even light from the quarter of a sphere that an upright pane sees, summed over angles."""
    aoi = (np.arange(900) + 0.5) * np.pi / 2 / 900
    weight = np.cos(aoi) * np.sin(aoi)
    return sum(passes(np.cos(a)) * w for a, w in zip(aoi, weight)) / weight.sum()


SKY = sky_share()
CLEAR = (OF_CLOUDLESS - OVERCAST) / (1 - OVERCAST)
OVER = (1 - CLEAR) * OVERCAST

print("latitude,azimuth,month,mol_m2_d")
for latitude in [40, 50, 60]:
    times = pd.date_range("2027-01-01", "2028-01-01", freq="10min", tz="UTC", inclusive="left")
    times = times + pd.Timedelta(minutes=5)
    sun = pvlib.solarposition.get_solarposition(times, latitude, 0)
    zenith = sun["zenith"]
    ghi = pvlib.clearsky.haurwitz(zenith)["ghi"]
    up = np.cos(np.radians(zenith)).clip(lower=1e-6)
    sky = ghi * (0.12 + 0.2 * (1 - up))
    normal = (ghi - sky) / up
    for azimuth in [180, 90, 0]:
        cos = pvlib.irradiance.aoi_projection(90, azimuth, zenith, sun["azimuth"])
        through = np.array([passes(c) if c > 0 else 0.0 for c in cos])
        beam = CLEAR * normal * np.clip(cos, 0, None) * through
        even = pvlib.irradiance.isotropic(90, CLEAR * sky + OVER * ghi) * SKY
        light = (beam + even) * 600e-6 * 0.45 * 4.57
        days = pd.Series(light.to_numpy(), index=times).resample("D").sum()
        for month, value in days.groupby(days.index.month).mean().items():
            print(f"{latitude},{azimuth},{month},{value:.3f}")
