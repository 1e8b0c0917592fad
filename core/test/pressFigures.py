"""Works out the figures of a colour bar on its own, from the formulas as published, for core/src/press to be held against.

    python3 core/test/pressFigures.py > core/test/data/pressFigures.json

Sources: ISO/CIE 11664-6 (CIEDE2000), ISO 20654 (spot colour tone value), Preucil 1958 (trapping), print contrast and
midtone spread as in ISO 12647-2, Wilson 1927 (interval of a share), Bissell 1990 (interval of Cpk). No code of Melto.
"""
import json
import math

WHITE = (96.422, 100.0, 82.521)


def f(t):
    return t ** (1 / 3) if t > (6 / 29) ** 3 else t / (3 * (6 / 29) ** 2) + 4 / 29


def lab(xyz):
    x, y, z = (f(v / w) for v, w in zip(xyz, WHITE))
    return 116 * y - 16, 500 * (x - y), 200 * (y - z)


def de2000(one, two):
    (l1, a1, b1), (l2, a2, b2) = one, two
    c_mean = (math.hypot(a1, b1) + math.hypot(a2, b2)) / 2
    g = 0.5 * (1 - math.sqrt(c_mean**7 / (c_mean**7 + 25**7)))
    a1, a2 = (1 + g) * a1, (1 + g) * a2
    c1, c2 = math.hypot(a1, b1), math.hypot(a2, b2)
    h1, h2 = (math.degrees(math.atan2(b, a)) % 360 for a, b in ((a1, b1), (a2, b2)))
    dh = h2 - h1
    if dh > 180:
        dh -= 360
    if dh < -180:
        dh += 360
    big_h = 2 * math.sqrt(c1 * c2) * math.sin(math.radians(dh / 2))
    h = (h1 + h2) / 2 if abs(h1 - h2) <= 180 else (h1 + h2 + (360 if h1 + h2 < 360 else -360)) / 2
    l, c = (l1 + l2) / 2, (c1 + c2) / 2
    t = (1 - 0.17 * math.cos(math.radians(h - 30)) + 0.24 * math.cos(math.radians(2 * h))
         + 0.32 * math.cos(math.radians(3 * h + 6)) - 0.2 * math.cos(math.radians(4 * h - 63)))
    sl = 1 + 0.015 * (l - 50) ** 2 / math.sqrt(20 + (l - 50) ** 2)
    sc, sh = 1 + 0.045 * c, 1 + 0.015 * c * t
    rt = (-math.sin(math.radians(60 * math.exp(-(((h - 275) / 25) ** 2)))) * 2
          * math.sqrt(c**7 / (c**7 + 25**7)))
    x, y, z = (l2 - l1) / sl, (c2 - c1) / sc, big_h / sh
    return math.sqrt(x * x + y * y + z * z + rt * y * z)


# X, Y, Z and densities (red, green, blue, visual) of one zone: paper, solids, tints, an overprint, a grey, lines.
PATCHES = {
    "paper": ((84.1, 87.3, 74.2), (0.06, 0.06, 0.07, 0.06)),
    "C solid": ((14.8, 20.9, 52.3), (1.48, 0.52, 0.21, 0.68)),
    "M solid": ((31.6, 16.2, 15.4), (0.16, 1.51, 0.79, 0.79)),
    "Y solid": ((65.2, 70.9, 7.1), (0.07, 0.12, 1.12, 0.15)),
    "C 50": ((37.4, 44.1, 63.5), (0.46, 0.27, 0.14, 0.33)),
    "M 50": ((51.7, 41.5, 39.6), (0.12, 0.43, 0.33, 0.36)),
    "Y 50": ((73.3, 77.9, 30.4), (0.07, 0.09, 0.46, 0.11)),
    "C 75": ((24.4, 31.2, 57.2), (0.82, 0.37, 0.17, 0.48)),
    "C + M": ((9.3, 6.4, 15.1), (1.52, 1.74, 0.83, 1.19)),
    "grey": ((31.9, 33.5, 27.8), (0.46, 0.47, 0.48, 0.47)),
    "lines along": ((55.0, 57.0, 48.0), (0.22, 0.22, 0.23, 0.22)),
    "lines across": ((53.0, 55.0, 46.5), (0.24, 0.24, 0.25, 0.24)),
    "spot solid": ((12.5, 18.1, 9.9), (1.3, 0.62, 1.05, 0.74)),
    "spot 50": ((38.2, 45.9, 33.3), (0.48, 0.29, 0.41, 0.33)),
}
AIMS = {"C solid": (56.0, -36.0, -50.0), "C + M": (25.0, 18.0, -45.0), "grey": (65.0, 0.5, -1.5), "paper": (95.0, 1.0, -4.0)}
TONES = {"C 50": 0.64, "M 50": 0.65, "Y 50": 0.63, "C 75": 0.86, "spot 50": 0.5}

xyz = {name: values[0] for name, values in PATCHES.items()}
density = {name: values[1] for name, values in PATCHES.items()}
labs = {name: lab(value) for name, value in xyz.items()}


def signal(ink, value):
    return {"C": value[0] - 0.55 * value[2], "M": value[1], "Y": value[2]}[ink]


def tone(ink, tint):
    paper, solid = signal(ink, xyz["paper"]), signal(ink, xyz[ink + " solid"])
    return (paper - signal(ink, xyz[tint])) / (paper - solid)


def v(value):
    return [116 * f(a / b) - 16 for a, b in zip(value, WHITE)]


def sctv(tint, solid):
    return math.dist(v(xyz[tint]), v(xyz["paper"])) / math.dist(v(xyz[solid]), v(xyz["paper"]))


def over(name, channel):
    return density[name][channel] - density["paper"][channel]


deviations = {name: 100 * (tone(name[0], name) - TONES[name]) for name in ("C 50", "M 50", "Y 50", "C 75")}
deviations["spot 50"] = 100 * (sctv("spot 50", "spot solid") - TONES["spot 50"])
midtones = [deviations[name] for name in ("C 50", "M 50", "Y 50")]


def area(name, channel):
    return 1 - 10 ** -over(name, channel)


def wilson(within, of):
    z, p = 1.959964, within / of
    middle = (p + z * z / (2 * of)) / (1 + z * z / of)
    half = z / (1 + z * z / of) * math.sqrt(p * (1 - p) / of + z * z / (4 * of * of))
    return [middle - half, middle + half]


series = [0.4 * math.sin(1.7 * i) + 1.5 + 0.01 * i for i in range(40)]
middle = sum(series) / len(series)
deviation = math.sqrt(sum((x - middle) ** 2 for x in series) / (len(series) - 1))
cpk = (3 - middle) / (3 * deviation)
half = 1.959964 * math.sqrt(1 / (9 * len(series)) + cpk * cpk / (2 * (len(series) - 1)))

print(json.dumps({
    "patches": {name: {"xyz": values[0], "density": values[1]} for name, values in PATCHES.items()},
    "aims": AIMS,
    "tones": TONES,
    "deltaE": {name: de2000(labs[name], aim) for name, aim in AIMS.items()},
    "deltaCh": math.hypot(labs["grey"][1] - AIMS["grey"][1], labs["grey"][2] - AIMS["grey"][2]),
    "toneDeviation": deviations,
    # C is printed first: what M adds over it, through the green filter.
    "trapping": 100 * (over("C + M", 1) - over("C solid", 1)) / over("M solid", 1),
    "contrast": 1 - over("C 75", 0) / over("C solid", 0),
    "spread": max(midtones) - min(midtones),
    "slur": 100 * (area("lines across", 0) - area("lines along", 0)),
    "wilson": {"27 of 30": wilson(27, 30), "30 of 30": wilson(30, 30)},
    "series": series,
    "cpk": [cpk - half, cpk, cpk + half],
}, indent=1))
