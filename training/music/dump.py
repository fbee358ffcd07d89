"""Writes pieces for `training/felt.mts` and `training/sections.mts`: `python3 -m music.dump PIECES FOLDER`.

NUMBER.bands, bytes, and NUMBER.json, its truth: style, beats, and downbeats and starts of sections where they are known.
"""

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
            facts = json.loads(str(data["facts"]))
            truth = {"style": facts["style"], "beats": data["beats"].round(4).tolist()}
            if facts["bars_known"]:
                truth["downbeats"] = data["downbeats"].round(4).tolist()
            if facts["sections_known"]:
                truth["sections"] = data["sections"].round(4).tolist()
            json.dump(truth, open(f"{name}.json", "w"))


if __name__ == "__main__":
    main()
