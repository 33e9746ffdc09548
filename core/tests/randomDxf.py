"""Random DXF files by ezdxf, with the lines that it makes of them itself; and how far what was read of them is from those (Shapely).

randomDxf.py make FOLDER SEED COUNT   writes 0.dxf, 1.dxf … and lines.json: for each file and layer lists of places, mm
randomDxf.py compare FOLDER           reads read.json, of the same form; prints for each file what does not agree
"""
import json
import math
import random
import sys

import ezdxf
from ezdxf import disassemble, path, units
from ezdxf.math import Vec3, rational_bspline_from_arc
from shapely.geometry import LineString
from shapely.ops import unary_union

# mm: curves of both sides are followed much more closely.
NEAR = 0.02
FINE = 0.0005
MM = {units.MM: 1, units.IN: 25.4, units.CM: 10}


class Maker:
    """One file. Every outline has a layer of its own, so that it is known again."""

    def __init__(self, seed):
        self.random = random.Random(seed)
        self.doc = ezdxf.new(self.random.choice(["R12", "R2000", "R2010", "R2018"]))
        self.old = self.doc.dxfversion == "AC1009"
        self.doc.units = units.MM if self.old else self.random.choice(list(MM))
        self.mm = MM[self.doc.units]
        self.layers = 0
        plain = self.doc.blocks.new("plain", base_point=(self.by(-5, 5), self.by(-5, 5)))
        self.fill(plain)
        nested = self.doc.blocks.new("nested", base_point=(self.by(-5, 5), self.by(-5, 5)))
        self.fill(nested)
        self.insert(nested, "plain", arrays=False)
        space = self.doc.modelspace()
        self.fill(space)
        self.insert(space, "plain")
        # Stretched, what is turned within would be slanted, which ezdxf does not tell.
        self.insert(space, "nested", stretched=False, arrays=False)

    def chance(self, share):
        return self.random.random() < share

    def by(self, least, most):
        return self.random.uniform(least, most) / self.mm

    def layer(self):
        self.layers += 1
        layer = self.doc.layers.add(f"L{self.layers}", color=self.random.randint(1, 7))
        if self.chance(0.08):
            self.random.choice([layer.off, layer.freeze])()
        return layer.dxf.name

    def extrusion(self):
        return {"extrusion": (0, 0, -1)} if self.chance(0.3) else {}

    def insert(self, space, block, stretched=True, arrays=True):
        scale = self.random.choice([1, -1, self.random.uniform(0.5, 1.5)])
        other = self.random.uniform(0.5, 1.5) if stretched and space.is_modelspace and self.chance(0.5) else scale
        said = {"layer": "0", "xscale": scale, "yscale": other * self.random.choice([1, -1]), "rotation": self.random.uniform(0, 360)}
        if arrays and self.chance(0.4):
            said |= {"column_count": self.random.randint(1, 3), "row_count": self.random.randint(1, 2)}
            said |= {"column_spacing": self.by(40, 60), "row_spacing": self.by(40, 60)}
        space.add_blockref(block, (self.by(-50, 50), self.by(-50, 50)), dxfattribs=said | self.extrusion())

    def fill(self, space):
        kinds = [self.circle, self.arcs, self.polyline, self.loop]
        if not self.old:
            kinds += [self.ellipse, self.light_polyline, self.spline, self.weighted_spline, self.invisible]
        for _ in range(self.random.randint(1, 3)):
            self.random.choice(kinds)(space, {"layer": self.layer()}, self.by(-50, 50), self.by(-50, 50))

    def corners(self, x, y):
        n = self.random.randint(4, 8)
        for i in range(n):
            angle = 2 * math.pi * i / n
            yield x + self.by(8, 20) * math.cos(angle), y + self.by(8, 20) * math.sin(angle)

    def bulging(self, x, y):
        return [(*place, self.random.choice([0, 0, self.random.uniform(-0.6, 0.6)])) for place in self.corners(x, y)]

    def circle(self, space, said, x, y):
        space.add_circle((x, y), self.by(2, 20), dxfattribs=said | self.extrusion())

    def invisible(self, space, said, x, y):
        space.add_circle((x, y), self.by(2, 20), dxfattribs=said | {"invisible": 1})

    def arcs(self, space, said, x, y):
        r, at, said = self.by(3, 15), self.random.uniform(0, 300), said | self.extrusion()
        space.add_arc((x, y), r, at, at + 150, dxfattribs=said)
        space.add_arc((x, y), r, at + 150, at + 360, dxfattribs=said)

    def ellipse(self, space, said, x, y):
        angle, r, ratio = self.random.uniform(0, 6.2), self.by(4, 20), self.random.uniform(0.2, 0.95)
        major, said = (r * math.cos(angle), r * math.sin(angle)), said | self.extrusion()
        if self.chance(0.5):
            space.add_ellipse((x, y), major, ratio, dxfattribs=said)
            return
        start, middle = self.random.uniform(0, 6), self.random.uniform(1, 5)
        space.add_ellipse((x, y), major, ratio, start, start + middle, dxfattribs=said)
        space.add_ellipse((x, y), major, ratio, start + middle, start + 2 * math.pi, dxfattribs=said)

    def light_polyline(self, space, said, x, y):
        space.add_lwpolyline(self.bulging(x, y), format="xyb", close=True, dxfattribs=said | self.extrusion())

    def polyline(self, space, said, x, y):
        space.add_polyline2d(self.bulging(x, y), format="xyb", close=True, dxfattribs=said | self.extrusion())

    def spline(self, space, said, x, y):
        controls = [(*place, 0) for place in self.corners(x, y)]
        spline = space.add_spline(dxfattribs=said)
        if self.chance(0.5):
            spline.set_closed(controls, degree=3)
        else:
            spline.set_open_uniform([*controls, controls[0]], degree=self.random.choice([2, 3]))

    def weighted_spline(self, space, said, x, y):
        spline = space.add_spline(dxfattribs=said)
        if self.chance(0.5):
            spline.apply_construction_tool(rational_bspline_from_arc((x, y), self.by(4, 15), 0, 360))
            return
        controls = [(*place, 0) for place in self.corners(x, y)]
        weights = [self.random.uniform(0.3, 3) for _ in range(len(controls) + 1)]
        spline.set_open_rational([*controls, controls[0]], weights, degree=3)

    def loop(self, space, said, x, y):
        """Lines and splines that end where the next begins, in any order and direction."""
        places = [Vec3(place) for place in self.corners(x, y)]
        sides = list(zip(places, places[1:] + places[:1]))
        self.random.shuffle(sides)
        for one, other in sides:
            if self.chance(0.5):
                one, other = other, one
            if self.old or self.chance(0.6):
                space.add_line(one, other, dxfattribs=said | self.extrusion())
                continue
            way = other - one
            beside = one.lerp(other) + way.orthogonal() * self.random.uniform(-0.3, 0.3)
            space.add_spline(dxfattribs=said).set_open_uniform([one, beside, beside + way * 0.1, other], degree=3)


def lines_of(file):
    """What is seen, by layer, mm."""
    doc = ezdxf.readfile(file)
    mm = MM.get(doc.units, 1)
    lines = {}
    for entity in disassemble.recursive_decompose(doc.modelspace()):
        layer = doc.layers.get(entity.dxf.layer)
        if layer.is_off() or layer.is_frozen() or entity.dxf.get("invisible", 0):
            continue
        if entity.dxftype() == "SPLINE":
            places = entity.flattening(FINE / mm)
        else:
            places = path.make_path(entity).flattening(FINE / mm, segments=64)
        lines.setdefault(entity.dxf.layer, []).append([[place.x * mm, place.y * mm] for place in places])
    return lines


def faults(theirs, ours):
    for layer in sorted({*theirs, *ours}):
        if layer not in ours:
            yield f"{layer} was not read"
        elif layer not in theirs:
            yield f"{layer} is not seen"
        else:
            one, other = (unary_union([LineString(line) for line in lines[layer]]) for lines in (theirs, ours))
            distance = one.hausdorff_distance(other)
            if distance > NEAR:
                yield f"{layer} lies {distance:.3f} mm away"


if sys.argv[1] == "make":
    folder, seed, count = sys.argv[2], int(sys.argv[3]), int(sys.argv[4])
    files = [f"{folder}/{i}.dxf" for i in range(count)]
    for i, file in enumerate(files):
        Maker(seed + i).doc.saveas(file)
    with open(f"{folder}/lines.json", "w") as out:
        json.dump([lines_of(file) for file in files], out)
else:
    theirs, ours = (json.load(open(f"{sys.argv[2]}/{name}.json")) for name in ("lines", "read"))
    json.dump([list(faults(*pair)) for pair in zip(theirs, ours)], sys.stdout)
