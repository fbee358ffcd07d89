"""Writes pieces for `training/felt.mts`: `python3 -m music.dump PIECES FOLDER`: NUMBER.bands, bytes, and NUMBER.json, its truth."""

import glob
import json
import os
import sys

import numpy as np


def main():
    source, target = sys.argv[1:3]
    os.makedirs(target, exist_ok=True)
    for path in sorted(glob.glob(os.path.join(source, "*.npz"))):
        name = os.path.join(target, os.path.basename(path)[:-4])
        with np.load(path) as data:
            data["bands"].tofile(f"{name}.bands")
            json.dump({"style": json.loads(str(data["facts"]))["style"], "beats": data["beats"].round(4).tolist()}, open(f"{name}.json", "w"))


if __name__ == "__main__":
    main()
