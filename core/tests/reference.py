"""Answers questions of the tests with SciPy: connected components, distance transforms, maximum flows.

Reads a JSON list of questions, writes a JSON list of answers.
"""

import base64
import json
import sys

import numpy
from scipy import ndimage
from scipy.sparse import csr_matrix
from scipy.sparse.csgraph import maximum_flow


def picture(question):
    bits = numpy.frombuffer(base64.b64decode(question["pixels"]), dtype=numpy.uint8)
    return bits.reshape(question["height"], question["width"])


def components(question):
    labels, _ = ndimage.label(picture(question))
    return [int(labels[j, i]) for i, j in question["at"]]


def distances(question):
    distance = ndimage.distance_transform_edt(picture(question))
    return [float(distance[j, i]) for i, j in question["at"]]


def flow(question):
    n = question["nodes"]
    capacity = numpy.zeros((n, n), dtype=numpy.int32)
    for a, b, width in question["edges"]:
        capacity[a, b] += width
        capacity[b, a] += width
    return int(maximum_flow(csr_matrix(capacity), question["source"], question["sink"]).flow_value)


ANSWERS = {"components": components, "distances": distances, "flow": flow}
json.dump([ANSWERS[question["ask"]](question) for question in json.load(sys.stdin)], sys.stdout)
