"""Answers questions of the tests with SciPy: connected components, distance transforms, maximum flows, logistic fits.

Reads a JSON list of questions, writes a JSON list of answers.
"""

import base64
import json
import sys

import numpy
from scipy import ndimage, optimize
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


def logistic(question):
    """Penalised logistic fit by a general minimiser: coefficients, and a quantile with its profile interval."""
    x = numpy.array(question["covariates"], dtype=float)
    y = numpy.array(question["survived"], dtype=float)
    others = numpy.array(question["others"], dtype=float)
    penalty = 0.5 if question["penalised"] else 0.0
    logit = numpy.log(question["share"] / (1 - question["share"]))

    def loss(b):
        eta = x @ b
        p = 1 / (1 + numpy.exp(-numpy.clip(eta, -700, 700)))
        likelihood = numpy.sum(y * eta - numpy.logaddexp(0, eta))
        sign, logdet = numpy.linalg.slogdet(x.T @ (x * (p * (1 - p))[:, None]))
        return 1e9 if sign <= 0 else -(likelihood + penalty * logdet)

    def least(of, start):
        best = None
        for _ in range(2):
            start = start if best is None else best.x
            best = optimize.minimize(of, start, method="Nelder-Mead", options={"xatol": 1e-9, "fatol": 1e-11, "maxiter": 40000, "maxfev": 40000})
        return best

    whole = least(loss, numpy.array([0.0, 1.0] + [0.0] * (x.shape[1] - 2)))
    rest = numpy.array([1.0, *others[2:]]) @ numpy.delete(whole.x, 1)
    at = (logit - rest) / whole.x[1]

    def held(place):
        def on(free):
            b = numpy.array([0.0, *free])
            b[0] = logit - b[1] * place - b[2:] @ others[2:]
            return loss(b)

        return least(on, whole.x[1:]).fun - whole.fun - 3.841458820694124 / 2

    def end(sign):
        away = 0.05
        while held(at + sign * away) < 0:
            away *= 1.5
            if away > 4:
                return None
        return optimize.brentq(lambda d: held(at + sign * d), 1e-6, away, xtol=1e-6)

    low, high = end(-1), end(1)
    return {
        "coefficients": list(whole.x),
        "at": at,
        "from": None if low is None else at - low,
        "to": None if high is None else at + high,
    }


def flow(question):
    n = question["nodes"]
    capacity = numpy.zeros((n, n), dtype=numpy.int32)
    for a, b, width in question["edges"]:
        capacity[a, b] += width
        capacity[b, a] += width
    return int(maximum_flow(csr_matrix(capacity), question["source"], question["sink"]).flow_value)


ANSWERS = {"components": components, "distances": distances, "flow": flow, "logistic": logistic}
json.dump([ANSWERS[question["ask"]](question) for question in json.load(sys.stdin)], sys.stdout)
