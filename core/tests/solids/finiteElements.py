"""Solids by finite elements: what the load test's frames are compared with.

gmsh meshes the outline with triangles and extrudes them to prisms; CalculiX (ccx) solves them with quadratic wedges (C3D15). Both are
Debian's (python3-gmsh, calculix-ccx). Reads a JSON list of cases, writes a JSON list of results.

    finiteElements.py < cases.json > results.json
"""

import json
import math
import subprocess
import sys
import tempfile
from pathlib import Path

import gmsh
import numpy

# Elements across the narrowest width that is looked at, and over the thickness; largest and smallest side, mm.
ACROSS = 4
LAYERS = 2
LARGEST = 1.6
SMALLEST = 0.12
# The force is spread over nodes as near as this to its place, mm.
SPREAD = 1.0
# From gmsh's prism of 15 nodes to ccx's C3D15.
ORDER = [0, 1, 2, 3, 4, 5, 6, 9, 7, 12, 14, 13, 8, 10, 11]


def area(ring):
    x, y = ring[:, 0], ring[:, 1]
    return 0.5 * float(numpy.sum(x * numpy.roll(y, -1) - numpy.roll(x, -1) * y))


def meshed(case):
    """Nodes (n, 3) and wedges (m, 15) of a case."""
    rings = [numpy.array(ring, dtype=float).reshape(-1, 2) for ring in case["region"]]
    geo = gmsh.model.geo
    gmsh.clear()
    gmsh.model.add("solid")
    loops = {}
    for k, ring in enumerate(rings):
        points = [geo.addPoint(float(x), float(y), 0.0) for x, y in ring]
        lines = [geo.addLine(points[i], points[(i + 1) % len(points)]) for i in range(len(points))]
        loops[k] = geo.addCurveLoop(lines)
    outers = [k for k, ring in enumerate(rings) if area(ring) > 0]
    holes = {k: [] for k in outers}
    for k, ring in enumerate(rings):
        if area(ring) < 0:
            around = [o for o in outers if inside(rings[o], ring[0])]
            holes[min(around, key=lambda o: abs(area(rings[o])))].append(k)
    surfaces = [geo.addPlaneSurface([loops[o], *(loops[h] for h in holes[o])]) for o in outers]
    geo.extrude([(2, s) for s in surfaces], 0, 0, case["material"]["thickness"], [LAYERS], recombine=True)
    geo.synchronize()
    # Sides by the width of the stroke there: the middle line and its widths come with the case.
    middles = numpy.array(case["widths"], dtype=float).reshape(-1, 3)

    def side(dim, tag, x, y, z, *rest):
        away = numpy.hypot(middles[:, 0] - x, middles[:, 1] - y) - middles[:, 2] / 2
        near = numpy.argmin(away)
        return float(min(LARGEST, max(SMALLEST, middles[near, 2] / ACROSS)))

    gmsh.model.mesh.setSizeCallback(side)
    for option in ("MeshSizeExtendFromBoundary", "MeshSizeFromPoints", "MeshSizeFromCurvature"):
        gmsh.option.setNumber(f"Mesh.{option}", 0)
    gmsh.option.setNumber("Mesh.Algorithm", 6)
    gmsh.model.mesh.generate(3)
    gmsh.model.mesh.setOrder(2)
    tags, coords, _ = gmsh.model.mesh.getNodes()
    wedges = []
    kinds, _, nodes = gmsh.model.mesh.getElements(3)
    for kind, of in zip(kinds, nodes):
        name, _, _, count, *_ = gmsh.model.mesh.getElementProperties(kind)
        if count == 18:
            # Without the middles of its faces.
            wedges.append(numpy.array(of).reshape(-1, 18)[:, :15])
        elif count == 15:
            wedges.append(numpy.array(of).reshape(-1, 15))
        else:
            raise ValueError(f"an element of another kind: {name}")
    wedges = numpy.vstack(wedges)
    number = {int(tag): i for i, tag in enumerate(tags)}
    used = sorted({int(n) for n in wedges.flat})
    renumbered = {tag: i for i, tag in enumerate(used)}
    xyz = numpy.array(coords).reshape(-1, 3)[[number[tag] for tag in used]]
    return xyz, numpy.vectorize(renumbered.get)(wedges)[:, ORDER]


def inside(ring, point):
    x, y = point
    odd = False
    for i in range(len(ring)):
        (ax, ay), (bx, by) = ring[i - 1], ring[i]
        if (ay > y) != (by > y) and x < ax + (y - ay) * (bx - ax) / (by - ay):
            odd = not odd
    return odd


def lines_of(numbers, per=12):
    return "\n".join(", ".join(map(str, numbers[i : i + per])) for i in range(0, len(numbers), per))


def solved(case, xyz, wedges, folder):
    """Displacements (pushes, n, 3) and stresses (pushes, n, 6)."""
    held = numpy.zeros(len(xyz), dtype=bool)
    for box in case["supports"]:
        held |= (
            (xyz[:, 0] >= box["minX"] - 1e-6)
            & (xyz[:, 0] <= box["maxX"] + 1e-6)
            & (xyz[:, 1] >= box["minY"] - 1e-6)
            & (xyz[:, 1] <= box["maxY"] + 1e-6)
        )
    if not held.any():
        raise ValueError("nothing is held")
    material = case["material"]
    text = ["*NODE, NSET=ALL"]
    text += [f"{i + 1}, {x:.9g}, {y:.9g}, {z:.9g}" for i, (x, y, z) in enumerate(xyz)]
    text.append("*ELEMENT, TYPE=C3D15, ELSET=SOLID")
    for i, wedge in enumerate(wedges):
        nodes = [int(n) + 1 for n in wedge]
        text.append(f"{i + 1}, " + ", ".join(map(str, nodes[:10])) + ",\n" + ", ".join(map(str, nodes[10:])))
    text += ["*NSET, NSET=HELD", lines_of([int(i) + 1 for i in numpy.flatnonzero(held)])]
    text += ["*MATERIAL, NAME=SHEET", "*ELASTIC", f"{material['young']}, {material['poisson']}"]
    text += ["*SOLID SECTION, ELSET=SOLID, MATERIAL=SHEET", "*BOUNDARY", "HELD, 1, 3"]
    # The force is spread evenly over the nodes about its place, through the whole thickness.
    for push in case["pushes"]:
        spread = nodes_near(xyz, push)
        text += ["*STEP", "*STATIC", "*CLOAD, OP=NEW"]
        for axis, force in enumerate(push["force"]):
            if force:
                text += [f"{int(n) + 1}, {axis + 1}, {force / len(spread):.12g}" for n in spread]
        text += ["*NODE FILE, OUTPUT=3D", "U", "*EL FILE", "S", "*END STEP"]
    (folder / "case.inp").write_text("\n".join(text) + "\n")
    run = subprocess.run(["ccx", "-i", "case"], cwd=folder, capture_output=True, text=True)
    if run.returncode or not (folder / "case.frd").exists():
        raise RuntimeError(run.stdout[-2000:])
    return read_frd(folder / "case.frd", len(xyz))


def nodes_near(xyz, push):
    away = numpy.hypot(xyz[:, 0] - push["x"], xyz[:, 1] - push["y"])
    near = numpy.flatnonzero(away <= SPREAD)
    return near if len(near) > 5 else numpy.argsort(away)[:6]


def read_frd(path, count):
    found = {"DISP": [], "STRESS": []}
    into = None
    with open(path) as file:
        for line in file:
            if line.startswith(" -4"):
                name = line[5:11].strip()
                into = None
                if name in found:
                    into = numpy.zeros((count, 3 if name == "DISP" else 6))
                    found[name].append(into)
            elif line.startswith(" -1") and into is not None:
                n = int(line[3:13]) - 1
                for k in range(into.shape[1]):
                    into[n, k] = float(line[13 + 12 * k : 25 + 12 * k])
            elif line.startswith(" -3"):
                into = None
    return numpy.array(found["DISP"]), numpy.array(found["STRESS"])


def section_stress(section, thickness, xyz, stress):
    """Greatest stress by tension and bending in a section: the stress along the stroke, laid through a plane by least squares."""
    (ax, ay), (bx, by) = [(section[end]["x"], section[end]["y"]) for end in ("from", "to")]
    width = math.hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / width, (by - ay) / width
    nx, ny = -uy, ux
    cx, cy = (ax + bx) / 2, (ay + by) / 2
    along = (xyz[:, 0] - cx) * nx + (xyz[:, 1] - cy) * ny
    across = (xyz[:, 0] - cx) * ux + (xyz[:, 1] - cy) * uy
    slab = numpy.flatnonzero((abs(along) < max(0.12, 0.15 * width)) & (abs(across) < 0.45 * width))
    if len(slab) < 12:
        return None
    normal = (
        stress[slab, 0] * nx * nx + stress[slab, 1] * ny * ny + 2 * stress[slab, 3] * nx * ny
    )
    plane = numpy.column_stack([numpy.ones(len(slab)), across[slab], xyz[slab, 2] - thickness / 2])
    (even, in_plane, out_of), *_ = numpy.linalg.lstsq(plane, normal, rcond=None)
    return float(abs(even) + abs(in_plane) * width / 2 + abs(out_of) * thickness / 2)


def result(case):
    xyz, wedges = meshed(case)
    with tempfile.TemporaryDirectory() as folder:
        moved, stress = solved(case, xyz, wedges, Path(folder))
    answer = {"name": case["name"], "nodes": len(xyz), "elements": len(wedges), "pushes": []}
    for k, push in enumerate(case["pushes"]):
        near = nodes_near(xyz, push)
        answer["pushes"].append(
            {
                "displacement": [float(v) for v in moved[k][near].mean(axis=0)],
                "sections": [
                    section_stress(section, case["material"]["thickness"], xyz, stress[k]) for section in case["sections"]
                ],
            }
        )
    return answer


def main():
    gmsh.initialize(["gmsh", "-v", "1"])
    answers = []
    for case in json.load(sys.stdin):
        try:
            answers.append(result(case))
            print(f"{case['name']}: {answers[-1]['nodes']} nodes", file=sys.stderr, flush=True)
        except Exception as error:  # One case that cannot be meshed must not lose the others.
            print(f"{case['name']}: {error}", file=sys.stderr, flush=True)
    json.dump(answers, sys.stdout)


main()
