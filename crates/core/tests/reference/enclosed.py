"""Air under glass, in rooms with lamps and in closed boxes by a general solver: writes enclosed.json.

The equations are those of core/src/warmth/enclosed/ and of chamber/ with one shelf, written down
independently: one air, one store of heat, one amount of vapour. scipy's LSODA integrates them in continuous
time: under glass over two days from the state that is outdoors at midnight, in boxes over two days after two
weeks of the same. Run it with scipy 1.x: python enclosed.py > enclosed.json
"""

import json
import math

from scipy.integrate import solve_ivp

AIR, VAPOUR_GAS, LATENT, SPEED = 1206.0, 461.5, 2.477e6, 0.0025


def saturated(c):
    """kg/m3 over water or ice: ASHRAE Fundamentals (Hyland and Wexler)."""
    t = c + 273.15
    if c <= 0.01:
        ln = (-5.6745359e3 / t + 6.3925247 - 9.677843e-3 * t + 6.2215701e-7 * t**2
              + 2.0747825e-9 * t**3 - 9.484024e-13 * t**4 + 4.1635019 * math.log(t))
    else:
        ln = (-5.8002206e3 / t + 1.3914993 - 4.8640239e-2 * t + 4.1764768e-5 * t**2
              - 1.4452093e-8 * t**3 + 6.5459673 * math.log(t))
    return math.exp(ln) / (VAPOUR_GAS * t)


def within(hour, start, hours):
    return (hour - start) % 24 < hours


def run(s, hours=48):
    mean = (s["day_c"] + s["night_c"]) / 2
    outside = s["humidity"] * saturated(mean)

    def slope(t, x):
        air, store, vapour = x
        hour = (t / 3600) % 24
        out = mean + (s["day_c"] - s["night_c"]) / 2 * math.cos((hour - 15) * math.pi / 12)
        sees = out - s.get("sky_k", 0)
        cover = s["cover_w_k"]
        mat = s.get("night_cover")
        if mat and within(hour, mat["from_h"], mat["hours"]):
            cover = mat["cover_w_k"]
        flow = s["leak_m3_h"]
        hatch = s.get("opening")
        if hatch and within(hour, hatch["from_h"], hatch["hours"]):
            flow += hatch["wide_m3_h"] * min(1, max(0, (air - hatch["from_c"]) / hatch["over_k"]))
        flow /= 3600
        sun, on_store = 0.0, 0.0
        if "sun" in s:
            up = (hour - s["sun"]["rises_h"]) % 24
            if up < s["sun"]["hours"]:
                arc = math.pi / s["sun"]["hours"]
                sun = s["sun"]["kwh"] * 1000 * arc / 2 * math.sin(arc * up)
            on_store = s["sun"]["on_store"]
        heat = 0.0
        if "heating" in s:
            h = s["heating"]
            heat = h["most_w"] * min(1, max(0, (h["set_c"] - air) / h["under_k"]))
        heat += sum(l["watts"] for l in s.get("lamps", []) if within(hour, l["from_h"], l["hours"]))
        inner = air - s.get("dew_share", 0) * (air - sees)
        evaporates = SPEED * s.get("wet_m2", 0) * max(0, saturated(store) - vapour)
        condenses = SPEED * s.get("dew_m2", 0) * max(0, vapour - saturated(inner))
        between = s["store_w_k"] * (store - air)
        to_air = (cover * (sees - air) + AIR * flow * (out - air) + between + (1 - on_store) * sun
                  + heat + LATENT * condenses * (1 - s.get("dew_share", 0)))
        to_store = (-between + s.get("ground_w_k", 0) * (s.get("ground_c", 0) - store)
                    + on_store * sun - LATENT * evaporates)
        # Fog falls at once: what is over saturation rains out in seconds.
        fog = max(0, vapour - saturated(air)) * s["volume_m3"] / 5
        gains = evaporates - condenses + flow * (outside - vapour) - fog
        return [to_air / (AIR * s["volume_m3"]), to_store / s["store_j_k"], gains / s["volume_m3"]]

    x = [mean, mean, outside]
    air, damp = [], []
    for hour in range(hours):
        # A step of its own for each hour: covers and hatches change at full hours.
        done = solve_ivp(slope, (hour * 3600, hour * 3600 + 3600), x, method="LSODA",
                         rtol=1e-7, atol=[1e-5, 1e-5, 1e-9], max_step=120)
        x = list(done.y[:, -1])
        air.append(round(x[0], 4))
        damp.append(round(min(1, x[2] / saturated(x[0])), 5))
    return air, damp


def stack(vents, warmer):
    """m3/s: two openings in series or one that breathes both ways (ASHRAE Fundamentals)."""
    def drive(h):
        return 9.81 * h * abs(warmer) / 293.15
    area = [v["width_mm"] * v["height_mm"] * 1e-6 for v in vents]
    if not vents:
        return 0.0
    middle = sum(a * v["at_mm"] for a, v in zip(area, vents)) / sum(area)
    single = sum(0.65 * a / 3 * math.sqrt(drive(v["height_mm"] / 1000)) for a, v in zip(area, vents))
    low = [(a, v["at_mm"] / 1000) for a, v in zip(area, vents) if v["at_mm"] < middle]
    high = [(a, v["at_mm"] / 1000) for a, v in zip(area, vents) if v["at_mm"] >= middle]
    if not low:
        return single
    below, above = sum(a for a, _ in low), sum(a for a, _ in high)
    rise = sum(a * z for a, z in high) / above - sum(a * z for a, z in low) / below
    series = 1 / math.sqrt(1 / above**2 + 1 / below**2)
    return max(single, 0.65 * series * math.sqrt(2 * drive(rise)))


def run_box(s):
    w, d, h = (s[k] / 1000 for k in ["width_mm", "depth_mm", "height_mm"])
    wall = sum(l["thickness_mm"] / 1000 / l["conductivity_w_mk"] for l in s["walls"])
    walls = (2 * (w + d) * h / (0.26 + wall) + w * d / (0.17 + 0.13 + wall) + w * d / (0.10 + 0.13 + wall))
    share = 0.13 / (0.26 + wall)
    stores = AIR * w * d * h + 4000 * 2 * (w + d) * h + 3200 * s["wet_kg"]
    mean = (s["day_c"] + s["night_c"]) / 2
    outside = s["humidity"] * saturated(mean)
    faces = 2 * (w * d + w * h + d * h)

    def slope(t, x):
        air, vapour = x
        hour = (t / 3600) % 24
        room = mean + (s["day_c"] - s["night_c"]) / 2 * math.cos((hour - 15) * math.pi / 12)
        heat = sum(m["watts"] for m in s["heaters"])
        heat += sum(l["watts"] for l in s.get("lamps", []) if within(hour, l["from_h"], l["hours"]))
        flow = stack(s["vents"], air - room)
        inner = air - share * (air - room)
        evaporates = SPEED * s["wet_m2"] * max(0, saturated(air) - vapour)
        condenses = SPEED * faces * max(0, vapour - saturated(inner))
        to_air = (walls + AIR * flow) * (room - air) + heat + LATENT * (condenses * (1 - share) - evaporates)
        gains = evaporates - condenses + flow * (outside - vapour)
        return [to_air / stores, gains / (w * d * h)]

    x, air, damp = [mean, outside], [], []
    for hour in range(24 * 16):
        if hour >= 24 * 14:
            air.append(round(x[0], 4))
            damp.append(round(min(1, x[1] / saturated(x[0])), 5))
        done = solve_ivp(slope, (hour * 3600, hour * 3600 + 3600), x, method="LSODA",
                         rtol=1e-7, atol=[1e-5, 1e-9], max_step=300)
        x = list(done.y[:, -1])
    return air, damp


def box(**more):
    """A foil-lined box with two mats in a heated room."""
    base = {
        "width_mm": 1220, "depth_mm": 610, "height_mm": 450,
        "walls": [{"thickness_mm": 10, "conductivity_w_mk": 0.04}], "vents": [], "shelves_mm": [20],
        "day_c": 20, "night_c": 18, "humidity": 0.45, "wet_kg": 14, "wet_m2": 0.25,
        "heaters": [{"watts": 22, "at_mm": 20}, {"watts": 22, "at_mm": 20}],
    }
    return {**base, **more}


def holes(*at):
    return [{"width_mm": 60, "height_mm": 20, "at_mm": mm} for mm in at]


LAMPS = [{"watts": 60, "at_mm": 400, "from_h": 6, "hours": 16}]
BOARDS = [{"thickness_mm": 18, "conductivity_w_mk": 0.13}]

BOXES = {
    "a foil box that is shut": box(),
    "a foil box with holes": box(vents=holes(30, 420)),
    "a foil box with one hole": box(vents=holes(400)),
    "a shelf in film with lamps": box(
        walls=[{"thickness_mm": 0.2, "conductivity_w_mk": 0.2}], heaters=[], lamps=LAMPS,
        vents=[{"width_mm": 1220, "height_mm": 3, "at_mm": mm} for mm in [0, 450]]),
    "a shut closet with lamps": box(
        width_mm=1000, depth_mm=600, height_mm=2000, walls=BOARDS, heaters=[], lamps=LAMPS,
        vents=[{"width_mm": 1000, "height_mm": 3, "at_mm": mm} for mm in [0, 2000]]),
    "a cabinet in a cold shed": box(day_c=10, night_c=4, wet_m2=0.4, wet_kg=25),
}


def frame(**more):
    """1.8 m2 of cold frame under single glass."""
    base = {
        "volume_m3": 0.58, "cover_w_k": 15.6, "sky_k": 2.2, "leak_m3_h": 1.2, "ground_w_k": 4.3,
        "ground_c": 6.0, "store_j_k": 432000.0, "store_w_k": 13.8, "day_c": 9.0, "night_c": 1.0,
        "humidity": 0.75, "wet_m2": 0.9, "dew_m2": 1.8, "dew_share": 0.75,
        "sun": {"kwh": 2.2, "rises_h": 6.0, "hours": 12.0, "on_store": 0.7},
    }
    return {**base, **more}


def house(**more):
    """6 m2 of greenhouse to stand in."""
    base = {
        "volume_m3": 10.0, "cover_w_k": 165.0, "sky_k": 2.2, "leak_m3_h": 15.0, "ground_w_k": 14.4,
        "ground_c": 7.0, "store_j_k": 1440000.0, "store_w_k": 46.0, "day_c": 10.0, "night_c": 2.0,
        "humidity": 0.75, "wet_m2": 3.0, "dew_m2": 28.0, "dew_share": 0.75,
        "sun": {"kwh": 9.0, "rises_h": 6.0, "hours": 12.0, "on_store": 0.7},
    }
    return {**base, **more}


def hatch(wide, c, over=6.0, start=0.0, hours=24.0):
    return {"wide_m3_h": wide, "from_c": c, "over_k": over, "from_h": start, "hours": hours}


CASES = {
    "a frame that stays shut": frame(),
    "a frame opened when it is warm": frame(opening=hatch(23.0, 18.0)),
    "a frame open by day": frame(opening=hatch(23.0, -20.0, start=9.0, hours=8.0)),
    "a frame under straw on a clear night of frost": frame(
        day_c=4.0, night_c=-8.0, sky_k=4.0,
        night_cover={"cover_w_k": 6.7, "from_h": 17.0, "hours": 15.0}),
    "a frame in May with water in it": frame(
        day_c=19.0, night_c=8.0, store_j_k=850000.0, ground_c=13.0,
        sun={"kwh": 4.2, "rises_h": 5.0, "hours": 15.0, "on_store": 0.7},
        opening=hatch(23.0, 18.0)),
    "a frame kept at 5 degrees": frame(
        night_c=-6.0, heating={"set_c": 5.0, "under_k": 1.0, "most_w": 400.0}),
    "a greenhouse that stays shut": house(),
    "a greenhouse opened when it is warm": house(opening=hatch(300.0, 18.0)),
    "a greenhouse kept at 8 degrees": house(
        heating={"set_c": 8.0, "under_k": 1.0, "most_w": 4000.0}),
    "a greenhouse of twin wall": house(cover_w_k=103.0, dew_share=0.47),
    "a greenhouse with drums of water": house(store_j_k=3950000.0, store_w_k=92.0),
    "a greenhouse in June": house(
        day_c=24.0, night_c=12.0, ground_c=16.0,
        sun={"kwh": 24.0, "rises_h": 4.5, "hours": 16.0, "on_store": 0.7},
        opening=hatch(300.0, 18.0)),
}

def room(**more):
    """12 m2 of room in a house, 2.4 m high, as it is without its lamps, and 1 kW of them."""
    base = {
        "volume_m3": 28.8, "cover_w_k": 46.0, "leak_m3_h": 14.4, "store_j_k": 2.9e6, "store_w_k": 290.0,
        "day_c": 19.0, "night_c": 16.0, "humidity": 0.5, "wet_m2": 1.5,
        "lamps": [{"watts": 1000.0, "from_h": 6.0, "hours": 16.0}],
    }
    return {**base, **more}


ROOMS = {
    "a room with a kilowatt of lamps": room(),
    "the same with the lamps off": room(lamps=[]),
    "the same with lamps by night": room(lamps=[{"watts": 1000.0, "from_h": 20.0, "hours": 16.0}]),
    "a shed with two rows of lamps in turn": room(
        cover_w_k=130.0, leak_m3_h=30.0, day_c=8.0, night_c=2.0, humidity=0.8,
        lamps=[{"watts": 500.0, "from_h": 4.0, "hours": 14.0}, {"watts": 700.0, "from_h": 14.0, "hours": 12.0}]),
    "a closet of a room full of trays": room(
        volume_m3=6.0, cover_w_k=19.0, leak_m3_h=3.0, store_j_k=9e5, store_w_k=90.0, wet_m2=4.0,
        lamps=[{"watts": 300.0, "from_h": 6.0, "hours": 16.0}]),
    "a dry attic in winter": room(
        volume_m3=60.0, cover_w_k=210.0, leak_m3_h=60.0, store_j_k=4.5e6, store_w_k=450.0,
        day_c=12.0, night_c=5.0, humidity=0.3, wet_m2=6.0),
}

if __name__ == "__main__":
    out = []
    for name, set_up in CASES.items():
        air, damp = run(set_up)
        out.append({"name": name, "set_up": set_up, "air_c": air, "humidity": damp})
    rooms = []
    for name, set_up in ROOMS.items():
        air, damp = run(set_up)
        rooms.append({"name": name, "set_up": set_up, "air_c": air, "humidity": damp})
    boxes = []
    for name, set_up in BOXES.items():
        air, damp = run_box(set_up)
        boxes.append({"name": name, "set_up": set_up, "air_c": air, "humidity": damp})
    out = {"under_glass": out, "boxes": boxes, "rooms": rooms}
    print(json.dumps(out, indent=1))
