"""Writes the weights for Hovlix, and a golden case: `python3 -m music.export TRAINED.pt CORE_FOLDER`.

`weights.json` holds the numbers that `whole` writes as base64; `golden.json` one short input and what the network says of it
with those very numbers, and the bands of a signal, for the test that holds both implementations together.
"""

import base64
import json
import os
import sys

import numpy as np
import torch

from .features import RATE, bands_of
from .net import DILATIONS, Net, whole


def main():
    trained, folder = sys.argv[1:3]
    net = Net()
    net.load_state_dict(torch.load(trained))
    net.eval()
    numbers = b"".join(whole(layer) for layer in net.layers())
    with torch.no_grad():
        rng = np.random.default_rng(5)
        bands = np.clip(rng.normal(60, 40, (240, 64)), 0, 255).astype(np.uint8)
        bands[::25] = 200
        said = net(torch.from_numpy(bands.astype(np.float32) / 100)[None])[0].numpy()
    n = np.arange(RATE)
    signal = 0.5 * np.sin(2 * np.pi * (200 * n / RATE + 3000 * (n / RATE) ** 2)) + np.where(n % 11025 == 0, 0.4, 0)
    heard = np.minimum(255, np.round(bands_of(signal)[10:91:10] * 100)).astype(int).tolist()
    packed = lambda values: base64.b64encode(values).decode()
    json.dump({"dilations": DILATIONS, "weights": packed(numbers)}, open(os.path.join(folder, "weights.json"), "w"))
    golden = {"bands": packed(bands.tobytes()), "beat": said[0].round(5).tolist(), "downbeat": said[1].round(5).tolist(), "section": said[2].round(5).tolist(), "heard": heard}
    json.dump(golden, open(os.path.join(folder, "golden.json"), "w"))
    print(f"{sum(p.numel() for p in net.parameters())} weights, {len(numbers)} bytes")


if __name__ == "__main__":
    main()
