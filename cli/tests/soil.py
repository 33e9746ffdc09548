"""Pictures made worse, and contours by scikit-image (python3-skimage; S. van der Walt et al., "scikit-image", PeerJ 2, 2014).

soil IN OUT SEED: blurred by 0.8 pixels, noise of 8 grey values, JPEG at quality 60 (Pillow).
contours IN: area and count of the contours at half of the grey values, as JSON.
"""
import json
import sys

import numpy as np
from PIL import Image, ImageFilter

if sys.argv[1] == "soil":
    picture = Image.open(sys.argv[2]).convert("L").filter(ImageFilter.GaussianBlur(0.8))
    noise = np.random.default_rng(int(sys.argv[4])).normal(0, 8, (picture.height, picture.width))
    Image.fromarray(np.clip(np.asarray(picture) + noise, 0, 255).astype(np.uint8)).save(sys.argv[3], quality=60)
else:
    from skimage.measure import find_contours

    grey = np.pad(np.asarray(Image.open(sys.argv[2]).convert("L")).astype(float), 1, constant_values=255)
    areas = []
    for ring in find_contours(grey, 127.5):
        y, x = ring[:, 0], ring[:, 1]
        areas.append(abs(float(np.dot(x[:-1], y[1:]) - np.dot(x[1:], y[:-1])) / 2))
    print(json.dumps(sorted(area for area in areas if area > 6)))
