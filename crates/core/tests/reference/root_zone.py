"""Root zones by a general solver of differential equations: writes root_zone.json.

The network is the one of core/src/warmth/root_zone/, written down independently: a level for the
mat and five in the mix. scipy's LSODA integrates it in continuous time; events switch the
thermostat. Run it with scipy 1.x: python root_zone.py > root_zone.json
"""

import json
import math

import numpy as np
from scipy.integrate import solve_ivp
from scipy.optimize import brentq

NIGHT, DAY = 15.0, 18.0


def saturation(c):
    """Pa, ASHRAE Fundamentals (Hyland and Wexler), over water."""
    t = c + 273.15
    return math.exp(
        -5.8002206e3 / t + 1.3914993 - 4.8640239e-2 * t + 4.1764768e-5 * t**2
        - 1.4452093e-8 * t**3 + 6.5459673 * math.log(t)
    )


def air(setup, hour):
    a = setup["air"]
    mean, half = (a["day_c"] + a["night_c"]) / 2, (a["day_c"] - a["night_c"]) / 2
    return mean + half * math.cos((hour - 15) * 2 * math.pi / 24)


def network(setup):
    mix, tray = setup["mix"], setup["tray"]
    area = tray["length_mm"] * tray["width_mm"] * 1e-6
    dz = mix["depth_mm"] / 1000 / 4
    thick = [dz / 2, dz, dz, dz, dz / 2]
    stores = np.array([4500.0] + [mix["heat_capacity_mj_m3k"] * 1e6 * t for t in thick])
    between = [1 / 0.03] + [mix["conductivity_w_mk"] / dz] * 4
    rim = 2 * (tray["length_mm"] + tray["width_mm"]) / 1000 * tray["free_sides"]
    aside = np.array([0.0] + [rim * t / area / 0.13 for t in thick])
    under = sum(l["thickness_mm"] / 1000 / l["conductivity_w_mk"] for l in setup.get("under", []))
    warm = setup.get("warm_surface_c")
    down = 1 / ((0.03 if warm is not None else 0.17) + under)
    dome = setup.get("dome", False)
    blown = 3.8 * setup.get("air_m_s", 0)
    above = 0 if dome else 1 / 0.10 + blown
    mat = setup.get("mat")
    heat = mat["watts"] / (mat["length_mm"] * mat["width_mm"] * 1e-6) * mat["cover"] if mat else 0
    wet = 0 if dome else mix["wetness"] * (5.0 + blown) / 66.0
    return stores, between, aside, down, above, heat, wet


def through_dome(setup, surface, a):
    """W/m2 from the surface to its lid, and from that, larger than the tray, to the air: the lid is where
    both meet. Vapour that rises to it condenses."""
    layer, lid_out, wet = 1 / 0.16, 1.4 * (1 / 0.10 + 3.8 * setup.get("air_m_s", 0)), setup["mix"]["wetness"] * 1.95 / 66.0
    if setup.get("thermostat"):
        # A thermostat's beat drifts with the least difference: there along the model's straight line.
        about = (setup["air"]["day_c"] + setup["air"]["night_c"]) / 2 + 4
        rises = (saturation(about + 0.01) - saturation(about - 0.01)) / 0.02
        return (surface - a) / (1 / (layer + wet * rises) + 1 / lid_out)

    def over(lid):
        up = layer * (surface - lid) + wet * max(0, saturation(surface) - saturation(lid))
        return up - lid_out * (lid - a)

    lid = brentq(over, min(a, surface) - 1, max(a, surface) + 1)
    return lid_out * (lid - a)


def run(setup, hours):
    stores, between, aside, down, above, heat, wet = network(setup)
    light, thermostat = setup.get("light"), setup.get("thermostat")
    on = heat > 0

    def slope(t, x, on):
        hour = (t / 3600) % 24
        a = air(setup, hour)
        q = aside * (a - x)
        for i, g in enumerate(between):
            flow = g * (x[i] - x[i + 1])
            q[i] -= flow
            q[i + 1] += flow
        warm = setup.get("warm_surface_c")
        q[0] += down * ((a if warm is None else warm) - x[0]) + (heat if on else 0)
        q[5] += above * (a - x[5])
        if setup.get("dome"):
            q[5] -= through_dome(setup, x[5], a)
        q[5] -= wet * (saturation(x[5]) - setup["air"]["humidity"] * saturation(a))
        if light and (hour - light["from_h"]) % 24 < light["hours"]:
            q[5] += light["ppfd"] * 0.2175 * 0.92
        return q / stores

    x, t, out = np.full(6, setup["air"]["night_c"]), 0.0, []
    for hour in range(1, hours + 1):
        while t < hour * 3600 - 1e-6:
            events = None
            if thermostat:
                half = thermostat["hysteresis_k"] / 2
                level = thermostat["set_c"] + thermostat["dial_error_k"] + (half if on else -half)
                place = {"mix": 3, "mat": 0}[thermostat["probe"]]
                event = lambda t, x, on: x[place] - level
                event.terminal, event.direction = True, (1 if on else -1)
                events = event
            s = solve_ivp(slope, (t, hour * 3600), x, args=(on,), method="LSODA", rtol=1e-7,
                          atol=1e-7, events=events, max_step=120)
            x, t = s.y[:, -1], s.t[-1]
            if s.status == 1:
                on = not on
        out.append(round(float(x[3]), 4))
    return out


def base(**more):
    setup = {
        "air": {"day_c": DAY, "night_c": NIGHT, "humidity": 0.45},
        "tray": {"length_mm": 540, "width_mm": 280, "free_sides": 1.0},
        "mix": {"depth_mm": 55, "conductivity_w_mk": 0.45, "heat_capacity_mj_m3k": 2.8,
                "wetness": 0.4},
    }
    setup.update(more)
    return setup


MAT = {"watts": 18, "length_mm": 510, "width_mm": 240, "cover": 0.81}
SETUPS = {
    "no mat, open": base(),
    "mat always on, domed, on wires": base(mat=MAT, dome=True),
    "mat always on, open": base(mat=MAT),
    "thermostat in the mix, domed, on a pad": base(
        mat=MAT, dome=True, under=[{"thickness_mm": 20, "conductivity_w_mk": 0.035}],
        thermostat={"set_c": 24, "hysteresis_k": 1, "probe": "mix", "dial_error_k": 0}),
    "thermostat on the mat, its dial 2 K off": base(
        mat=MAT, thermostat={"set_c": 21, "hysteresis_k": 2, "probe": "mat", "dial_error_k": 2}),
    "lit by day, no mat": base(light={"ppfd": 250, "from_h": 6, "hours": 16}),
    "half a mat in a cold room": base(
        air={"day_c": 12, "night_c": 4, "humidity": 0.7}, dome=True, mat={**MAT, "cover": 0.4}),
    "deep pots on a warm appliance": base(
        warm_surface_c=32, mix={"depth_mm": 90, "conductivity_w_mk": 0.5,
                                "heat_capacity_mj_m3k": 3.2, "wetness": 0.3}),
    "bark under a lamp and a fan": base(
        air_m_s=0.6, light={"ppfd": 250, "from_h": 6, "hours": 16},
        mix={"depth_mm": 55, "conductivity_w_mk": 0.35, "heat_capacity_mj_m3k": 2.2,
             "wetness": 0.4}),
    "domed on a mat before a fan": base(air_m_s=0.5, mat=MAT, dome=True),
}

print(json.dumps([{"name": n, "setup": s, "root_zone_c": run(s, 48)} for n, s in SETUPS.items()],
                 indent=1))
