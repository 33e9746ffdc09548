"""Measures a sheet as DXF: pieces that are cut, the least distance between two, and to the sheet's edge; lines that are scored; how wide each is."""
import io
import itertools
import json
import sys

import ezdxf
from ezdxf import path
from shapely.geometry import LineString, Polygon
from shapely.ops import polygonize

width, height = float(sys.argv[1]), float(sys.argv[2])
document = ezdxf.read(io.StringIO(sys.stdin.buffer.read().decode("utf-8")))
lines, scored, known = [], 0, {}


def snapped(point):
    """Entities of one outline end where the next begins, but for rounding."""
    x, y = round(point.x, 2), round(point.y, 2)
    near = [(x + dx, y + dy) for dx in (0, -0.01, 0.01) for dy in (0, -0.01, 0.01)]
    for key in ((round(a, 2), round(b, 2)) for a, b in near):
        if key in known:
            return known[key]
    known[(x, y)] = (point.x, point.y)
    return known[(x, y)]


for entity in document.modelspace():
    if entity.dxf.layer != "cut":
        scored += 1
        continue
    drawn = list(path.make_path(entity).flattening(0.005))
    lines.append(LineString([snapped(drawn[0]), *((p.x, p.y) for p in drawn[1:-1]), snapped(drawn[-1])]))
faces = list(polygonize(lines))
filled = [Polygon(face.exterior) for face in faces]
# A face within an odd number of others is a hole.
pieces = [
    face for face in faces if sum(1 for other in filled if other.contains(face.representative_point())) % 2 == 1
]
nearest = min((a.distance(b) for a, b in itertools.combinations(pieces, 2)), default=1e9)
edge = min(min(x0, y0, width - x1, height - y1) for x0, y0, x1, y1 in (piece.bounds for piece in pieces))
widths = sorted(piece.bounds[2] - piece.bounds[0] for piece in pieces)
right = max(piece.bounds[2] for piece in pieces)
top = max(piece.bounds[3] for piece in pieces)
print(json.dumps({"right": right, "top": top, "pieces": len(pieces), "nearest": nearest, "edge": edge, "numbers": scored, "widths": widths}))
