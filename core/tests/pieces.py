"""Looks at pieces and their files with libraries that the product does not use.

Shapely (GEOS) unites the parts and asks for connected components and erosions; ezdxf reads DXF, poppler's pdftocairo reads PDF, and
a small reader of its own reads SVG paths. One JSON document a line comes in, one line of faults goes out.
"""

import json
import math
import re
import subprocess
import sys

import ezdxf
import numpy
from scipy.interpolate import BSpline
from scipy.spatial import cKDTree
from shapely.geometry import LineString, Point, Polygon, box
from shapely.ops import unary_union
from shapely.validation import make_valid

CRUMB = 0.01
GRID = 0.0003
GROWN = 0.0004
NEAR = 0.02
FINE = 0.0003
# Outlines that are smaller as a whole than a node is wide are not compared, mm.
SMALL = 0.07
# An outline with holding tabs is at least so many times as long as what a tab takes of it.
ROOM = 12.5


def rings(flat):
    return [numpy.asarray(ring).reshape(-1, 2) for ring in flat]


def even_odd(rings_):
    shape = Polygon()
    for ring in rings_:
        if len(ring) > 2:
            shape = shape.symmetric_difference(make_valid(Polygon(ring)))
    return shape


def region(flat):
    """A normalised region: what lies inside an odd number of its rings."""
    return even_odd(rings(flat))


def pieces(shape):
    if shape.is_empty:
        return []
    return [each for each in getattr(shape, "geoms", [shape]) if each.geom_type == "Polygon"]


def eroded(shape, by, resolution=16):
    return pieces(shape.buffer(-by, resolution=resolution))


def slack(width):
    """GEOS simplifies outlines by up to a hundredth of the distance before it grows or shrinks them (its BufferParameters)."""
    return max(0.02, 0.012 * width)


def verdict_faults(case):
    faults = []
    whole = unary_union([region(part["rings"]) for part in case["parts"]])
    solid = [each for each in pieces(whole) if each.area >= CRUMB]
    # Pieces that hang together by less than the grid may count either way.
    loose = len([each for each in pieces(whole.buffer(0.0004, resolution=2)) if each.area >= CRUMB])
    # So may those that touch along a side: each is a little smaller then, not only the whole, in which the side is gone.
    apart = unary_union([region(part["rings"]).buffer(-GRID, resolution=2) for part in case["parts"]])
    tight = max(len([each for each in some if each.area >= CRUMB]) for some in (eroded(whole, 0.0004), pieces(apart)))
    if not min(loose, len(solid)) <= case["pieces"] <= max(tight, len(solid)):
        faults.append(f"{case['pieces']} pieces, shapely finds {len(solid)} ({loose} to {tight})")
    if loose > 1 and case["verdict"] != "falls":
        faults.append(f"{loose} pieces and yet {case['verdict']}")
    # Where the polygon library would lose an outline, all shapes are grown by 0.2 to 0.8 µm.
    if abs(whole.area - case["area"]) > max(0.02, 1e-4 * whole.area) + GROWN * whole.length:
        faults.append(f"area {case['area']:.3f}, shapely has {whole.area:.3f}")
    # Parts whose sides lie on each other are joined on the grid of 0.1 µm; in floating point a crack is left between them. So what is
    # narrow is looked at with and without such cracks, and told when it is wrong both ways.
    plain = width_faults(case, whole)
    if not plain:
        return faults
    closed = width_faults(case, whole.buffer(GRID, resolution=2).buffer(-GRID, resolution=2))
    told = {re.sub(r"\d+\.\d+", "", fault) for fault in plain}
    return faults + [fault for fault in closed if re.sub(r"\d+\.\d+", "", fault) in told]


def width_faults(case, whole):
    faults, wanted = [], case["wanted"]
    if case["verdict"] == "holds":
        # A disc a little narrower than wanted must reach everything that is as wide as wanted.
        wide = [each for each in eroded(whole, wanted / 2 + slack(wanted)) if each.area > 0.02]
        way = eroded(whole, wanted / 2 - slack(wanted))
        homes = {next((i for i, each in enumerate(way) if each.intersects(one)), -1) for one in wide}
        if len(homes) > 1:
            faults.append(f"holds, and yet discs of {wanted} are in {len(homes)} places apart")
        if not wide and not way:
            faults.append("holds, and yet is narrower than wanted everywhere")
    for hold in case["holds"]:
        faults.extend(hold_faults(whole, hold))
    return faults


def hold_faults(whole, hold):
    width, pole = hold["width"], Point(hold["pole"])
    anchors = [Point(each) for each in hold["anchors"]]

    def reached_by(diameter, resolution):
        home = next((each for each in eroded(whole, diameter / 2, resolution) if each.distance(pole) < 1e-3), None)
        return home is not None and any(home.distance(anchor) < 1e-3 for anchor in anchors)

    def reached(diameter, hoped):
        """What disagrees is looked at once more with rounder corners before it is told."""
        return hoped if reached_by(diameter, 16) == hoped else reached_by(diameter, 96)

    if width == 0:
        return ["falls, and yet a disc of 0.02 gets through"] if reached(0.02, False) else []
    by = slack(width)
    def goes_straight(diameter):
        """For wide discs GEOS leaves more out than it says: a straight way is looked at by distances alone."""
        ways = [LineString([pole, anchor]) for anchor in anchors if pole.distance(anchor) > 0]
        return any(whole.contains(way) and way.distance(whole.boundary) >= diameter / 2 for way in ways)

    if width > 2 * by and not reached(width - by, True) and not goes_straight(width - by):
        return [f"{hold['id']}: hold {width:.3f}, and yet a disc of {width - by:.3f} does not get through"]
    if reached(width + by, False):
        return [f"{hold['id']}: hold {width:.3f}, and yet a disc of {width + by:.3f} gets through"]
    return []


# Files


def svg_paths(text):
    cut = re.search(r'<g id="([^"]*)"[^>]*stroke="%s".*?</g>' % re.escape(CUT), text, re.S)
    for data in re.findall(r' d="([^"]*)"', cut.group(0)) if cut else []:
        yield from path_rings(data)


def path_rings(data):
    tokens = re.findall(r"[MLCAZ]|-?\d*\.?\d+(?:e-?\d+)?", data)
    points, k = [], 0
    number = lambda: float(tokens.pop(0))
    while tokens:
        command = tokens.pop(0)
        if command == "M":
            # Writers leave a point behind after a closed path.
            if len(points) > 1:
                yield points, False
            points = [(number(), number())]
        elif command == "L":
            points.append((number(), number()))
        elif command == "C":
            a = numpy.array(points[-1])
            b, c, d = (numpy.array((number(), number())) for _ in range(3))
            n = 12 + math.ceil(6 * sum(math.dist(p, q) for p, q in ((a, b), (b, c), (c, d))))
            t = numpy.linspace(0, 1, n)[1:, None]
            points.extend(map(tuple, (1 - t) ** 3 * a + 3 * (1 - t) ** 2 * t * b + 3 * (1 - t) * t**2 * c + t**3 * d))
        elif command == "A":
            r, _, _, large, sweep = number(), number(), number(), int(number()), int(number())
            points.extend(arc(points[-1], (number(), number()), r, large, sweep))
        elif command == "Z":
            yield points, True
            points = []
    if len(points) > 1:
        yield points, False


def arc(a, b, r, large, sweep):
    """End point to centre parameters: SVG 1.1, appendix F.6.5."""
    hx, hy = (a[0] - b[0]) / 2, (a[1] - b[1]) / 2
    r = max(r, math.hypot(hx, hy))
    k = math.sqrt(max(0.0, (r * r - hx * hx - hy * hy) / (hx * hx + hy * hy))) * (-1 if large == sweep else 1)
    cx, cy = (a[0] + b[0]) / 2 + k * hy, (a[1] + b[1]) / 2 - k * hx
    start, end = math.atan2(a[1] - cy, a[0] - cx), math.atan2(b[1] - cy, b[0] - cx)
    if sweep and end <= start:
        end += 2 * math.pi
    if not sweep and end >= start:
        end -= 2 * math.pi
    n = max(2, math.ceil(abs(end - start) / math.acos(1 - min(1, FINE / r)) / 2))
    return [(cx + r * math.cos(start + (end - start) * i / n), cy + r * math.sin(start + (end - start) * i / n)) for i in range(1, n)] + [b]


def dxf_lines(path):
    for entity in ezdxf.readfile(path).modelspace():
        if entity.dxf.layer != LAYER:
            continue
        kind = entity.dxftype()
        if kind == "LINE":
            yield [tuple(entity.dxf.start)[:2], tuple(entity.dxf.end)[:2]]
        elif kind == "ARC":
            yield [tuple(p)[:2] for p in entity.flattening(FINE)]
        elif kind == "SPLINE":
            yield spline_points(entity)
        elif kind == "LWPOLYLINE":
            points = [(x, y) for x, y, *_ in entity.get_points()]
            yield points + points[:1] if entity.closed else points
        else:
            raise ValueError(kind)


def spline_points(entity):
    """SciPy evaluates many places of a spline at once, ezdxf one by one."""
    if entity.weights:
        return [tuple(p)[:2] for p in entity.flattening(FINE)]
    controls = numpy.array(entity.control_points)[:, :2]
    spline = BSpline(numpy.array(entity.knots), controls, entity.dxf.degree)
    spans = numpy.unique(numpy.array(entity.knots))
    n = 12 + math.ceil(6 * numpy.hypot(*numpy.diff(controls, axis=0).T).sum())
    t = numpy.concatenate([numpy.linspace(a, b, n, endpoint=False) for a, b in zip(spans, spans[1:])] + [spans[-1:]])
    return list(map(tuple, spline(t)))


def chained(lines):
    """The lines of our files follow one another: each begins where the last one ended."""
    points = []
    for line in lines:
        if points:
            near = min((line, line[::-1]), key=lambda each: math.dist(points[-1], each[0]))
            if math.dist(points[-1], near[0]) < 0.005:
                points.extend(near[1:])
            else:
                # The first line of an outline may have to be turned round as well.
                back = min((line, line[::-1]), key=lambda each: math.dist(points[0], each[0]))
                points = points[::-1] + back[1:] if math.dist(points[0], back[0]) < 0.005 else points + line
        else:
            points = list(line)
        if len(points) > 2 and math.dist(points[0], points[-1]) < 0.005:
            yield points, True
            points = []
    if points:
        yield points, False


def pdf_paths(path):
    text = subprocess.run(["pdftocairo", "-svg", "-nocenter", "-noshrink", path, "-"], capture_output=True, text=True, check=True).stdout
    for element in re.findall(r"<path[^>]*/>", text):
        stroke = re.search(r'stroke(?:="|:)rgb\(([^)]*)\)', element)
        if not stroke:
            continue
        colour = "#" + "".join("%02x" % round(float(part.strip(" %")) * 2.55) for part in stroke.group(1).split(","))
        if colour != CUT:
            continue
        matrix = re.search(r'transform="matrix\(([^)]*)\)"', element)
        m = [float(v) for v in matrix.group(1).split(",")] if matrix else [1, 0, 0, 1, 0, 0]
        for points, closed in path_rings(re.search(r' d="([^"]*)"', element).group(1)):
            yield [((m[0] * x + m[2] * y + m[4]) * 25.4 / 72, (m[1] * x + m[3] * y + m[5]) * 25.4 / 72) for x, y in points], closed


def extent(points):
    return float((points.max(0) - points.min(0)).max())


def file_faults(case):
    faults = []
    # Outlines that are smaller as a whole than a node is wide are not written.
    outlines = [ring for ring in rings(case["cut"]) if extent(ring) > SMALL]
    exact = even_odd(outlines)
    height = case["height"]
    for kind, path in case["files"].items():
        try:
            if kind == "svg":
                found = [([(x, height - y) for x, y in points], closed) for points, closed in svg_paths(open(path).read())]
            elif kind == "pdf":
                found = [([(x, height - y) for x, y in points], closed) for points, closed in pdf_paths(path)]
            else:
                found = list(chained(list(dxf_lines(path))))
        except Exception as error:
            faults.append(f"{kind} cannot be read: {error}")
            continue
        if not all(closed for _, closed in found):
            faults.append(f"{kind} has open cut lines")
        found = [(numpy.asarray(points), closed) for points, closed in found]
        drawn = [points for points, _ in found if extent(points) > SMALL]
        shape = even_odd(drawn)
        difference = abs(shape.area - exact.area)
        # pdftocairo rounds to 1/256 of a point (cairo's fixed-point numbers; from memory), so that an edge may lie half of that beside.
        rounded = 25.4 / 72 / 512 * exact.length if kind == "pdf" else 0
        if difference > max(0.0005 * exact.area, 0.02) + rounded:
            faults.append(f"{kind}: area {shape.area:.3f}, the piece has {exact.area:.3f}")
        if drawn and outlines:
            # What is near the limit may be a little above it on the one side and a little below on the other.
            off = max(strays(drawn, rings(case["cut"])), strays(outlines, [points for points, _ in found]))
            if off > NEAR + 0.003:
                faults.append(f"{kind}: {off:.3f} mm off")
        if not shapes_alike(shape, exact):
            faults.append(f"{kind}: {counts(shape)} pieces and holes, the piece has {counts(exact)}")
    return faults


def tab_faults(case):
    """
    What is left of a sheet when a beam as wide as the cut has gone along every line of a file with holding tabs: a disc nearly as wide
    as a tab must get from the edge of the sheet into everything that is held.
    """
    kerf, width, height = case["tabbed"]["kerf"], case["tabbed"]["width"], case["height"]
    # Where the piece itself is narrower than a tab, a tab is no way through it.
    if case["verdict"] != "holds" or case["wanted"] < 2 * width:
        return []
    cut = [LineString(list(points) + list(points[:1]) if closed else points) for points, closed in svg_paths(open(case["tabbed"]["path"]).read())]
    free = box(-5, -5, case["width"] + 5, height + 5).difference(unary_union([line.buffer(max(kerf, 0.02) / 2) for line in cut]))
    # SVG counts downwards.
    exact = even_odd([ring * [1, -1] + [0, height] for ring in rings(case["cut"]) if extent(ring) > SMALL])
    through = eroded(free, width / 2 - 0.02)
    home = lambda shape: {i for i, each in enumerate(through) if each.intersects(shape)}
    sheet = home(Point(-4, -4))
    faults = []
    for piece in pieces(exact):
        held = [each for each in eroded(piece, width / 2 + kerf) if each.area > 0.02]
        if piece.exterior.length < ROOM * (width + kerf) or not held:
            continue
        if not any(home(each) & sheet for each in held):
            faults.append(f"a piece of {piece.area:.1f} mm² at {piece.representative_point().wkt} drops out although it has tabs")
    return faults


def counts(shape):
    solid = [each for each in pieces(shape) if each.area > 0.05]
    return len(solid), sum(len([hole for hole in each.interiors if Polygon(hole).area > 0.05]) for each in solid)


def shapes_alike(one, other):
    """As many pieces and holes; where two touch in a point within a few µm, either count will do."""
    near = lambda shape: {counts(shape.buffer(by, resolution=2) if by else shape) for by in (0, 0.004, -0.004)}
    return bool(near(one) & near(other))


def segments(outlines):
    """Closed outlines in pieces of at most 0.2 mm: their starts and ends."""
    a = numpy.concatenate(outlines)
    along = numpy.concatenate([numpy.roll(ring, -1, axis=0) - ring for ring in outlines])
    count = numpy.maximum(1, numpy.ceil(numpy.hypot(along[:, 0], along[:, 1]) / 0.2)).astype(int)
    edge = numpy.repeat(numpy.arange(len(a)), count)
    step = numpy.arange(count.sum()) - numpy.repeat(numpy.cumsum(count) - count, count)
    part = (along / count[:, None])[edge]
    starts = a[edge] + part * step[:, None]
    return starts, starts + part


def strays(outlines, others):
    """How far places of outlines, 0.2 mm apart, lie from the nearest segments of others at most."""
    points, _ = segments(outlines)
    a, b = segments(others)
    tree = cKDTree((a + b) / 2)
    away = nearest(points, a, b, tree, 6)
    # The middle of a long segment may be far from its nearest place: what seems to be off is looked at among more of them.
    doubtful = away > NEAR / 4
    if doubtful.any():
        away[doubtful] = nearest(points[doubtful], a, b, tree, 64)
    return float(away.max())


def nearest(points, a, b, tree, among):
    """Distance of each point from the nearest of the segments whose middles are nearest."""
    _, near = tree.query(points, k=min(among, len(a)))
    near = near.reshape(len(points), -1)
    px, py = points[:, None, 0] - a[near, 0], points[:, None, 1] - a[near, 1]
    ux, uy = (b - a)[near, 0], (b - a)[near, 1]
    t = numpy.clip((px * ux + py * uy) / numpy.maximum(ux * ux + uy * uy, 1e-18), 0, 1)
    return numpy.sqrt(((px - t * ux) ** 2 + (py - t * uy) ** 2).min(1))


for line in sys.stdin:
    case = json.loads(line)
    CUT, LAYER = case["colour"], case["layer"]
    try:
        faults = verdict_faults(case) + (file_faults(case) + tab_faults(case) if case.get("files") else [])
    except Exception as error:  # A fault of the reference is told, not hidden.
        faults = [f"the reference failed: {error!r}"]
    print(json.dumps({"id": case["id"], "faults": faults}), flush=True)
