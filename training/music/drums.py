"""Hears kick, snare and hat: `python3 -m music.drums PIECES CORE_FOLDER [MINUTES]` trains, scores and writes the weights.

A small network over the same 64 bands, 100 times a second, with a sixth of a second to either side. Pieces whose number
ends in 7 are kept apart: they choose the step that is kept and how sure the network must be of a stroke.
"""

import base64
import glob
import json
import os
import sys
import time

import numpy as np
import torch
from torch import nn
from torch.nn import functional as F

from .net import whole
from .strokes import KINDS
from .train import varied

CHANNELS, TAPS = 32, 3
DILATIONS = [2, 4, 8]
BATCH, FRAMES = 8, 1500
WIDTH = 0.02
NEAR = 0.05


class DrumNet(nn.Module):
    def __init__(self):
        super().__init__()
        self.first = nn.Conv1d(64, CHANNELS, 5, padding=2)
        self.blocks = nn.ModuleList(nn.Conv1d(CHANNELS, CHANNELS, TAPS, dilation=d, padding=d) for d in DILATIONS)
        self.heads = nn.Conv1d(CHANNELS, len(KINDS), 1)

    def forward(self, bands):
        """`bands`: batch, frames, 64. Returns logits: batch, 3, frames."""
        x = F.relu(self.first(bands.transpose(1, 2)))
        for block in self.blocks:
            x = x + F.relu(block(x))
        return self.heads(x)


def _sample(piece, rng):
    bands = varied(piece["bands"], rng, 1.0)
    start = int(rng.integers(0, max(1, len(bands) - FRAMES)))
    bands = bands[start : start + FRAMES]
    targets, counts = _truth(piece, start, FRAMES)
    counts[:, len(bands) :] = 0
    return np.pad(bands, ((0, FRAMES - len(bands)), (0, 0))).astype(np.float32), targets, counts


def _truth(piece, start, frames):
    targets, counts = np.zeros((3, frames), np.float32), np.ones((3, frames), np.float32)
    for i, kind in enumerate(KINDS):
        for at in piece[f"unsure_{kind}"] * 100 - start:
            counts[i, max(0, int(at) - 4) : max(0, int(at) + 6)] = 0
        for at in piece[kind] * 100 - start:
            for frame in range(max(0, int(at) - 2), min(frames, int(at) + 4)):
                height = 1 - abs(frame - at) / (WIDTH * 100)
                if height > 0:
                    targets[i, frame], counts[i, frame] = max(targets[i, frame], height), 1
    return targets, counts


def peaks(likely, least):
    """Frames, with their fractions, where a likelihood has a top of at least `least`."""
    here, before, after = likely[1:-1], likely[:-2], likely[2:]
    at = np.flatnonzero((here >= before) & (here > after) & (here >= least)) + 1
    bend = likely[at - 1] - 2 * likely[at] + likely[at + 1]
    return at + np.where(bend < -1e-6, 0.5 * (likely[at - 1] - likely[at + 1]) / np.minimum(bend, -1e-6), 0).clip(-0.5, 0.5)


def counted(found, played, unsure):
    """(hits, found, played) within 50 ms; what is found beside a stroke that is unsure is not counted."""
    hits, k, used = 0, 0, set()
    for at in played:
        while k < len(found) and found[k] < at - NEAR:
            k += 1
        if k < len(found) and found[k] <= at + NEAR:
            hits += 1
            used.add(k)
            k += 1
    left = [i for i in range(len(found)) if i not in used and not (len(unsure) and np.min(np.abs(unsure - found[i])) < NEAR)]
    return hits, hits + len(left), len(played)


def _scores(net, pieces):
    """By kind the best threshold and the mean F-measure over the pieces that have it, and at that threshold strokes a minute in those without."""
    net.eval()
    out = {}
    with torch.no_grad():
        likely = [torch.sigmoid(net(torch.from_numpy(piece["bands"].astype(np.float32) / 100)[None]))[0].numpy() for piece in pieces]
    for i, kind in enumerate(KINDS):
        best = (0.0, 0.5, 0.0)
        for least in np.arange(0.1, 0.75, 0.05):
            scores, strays, seconds = [], 0, 0.0
            for piece, rows in zip(pieces, likely):
                hits, found, played = counted(peaks(rows[i], least) / 100, piece[kind], piece[f"unsure_{kind}"])
                if played >= 8:
                    scores.append(2 * hits / max(1, found + played))
                elif played == 0:
                    strays, seconds = strays + found, seconds + len(rows[i]) / 100
            if np.mean(scores) > best[0]:
                best = (float(np.mean(scores)), float(least), strays / max(1, seconds) * 60)
        out[kind] = best
    return out


def _load(folder):
    kept, apart = [], []
    for path in sorted(glob.glob(os.path.join(folder, "*.npz"))):
        with np.load(path) as data:
            if "kick" not in data:
                continue
            piece = {key: data[key] for key in ("bands", *KINDS, *(f"unsure_{kind}" for kind in KINDS))}
        (apart if path[-5] == "7" else kept).append(piece)
    return kept, apart


def _train(net, kept, apart, minutes):
    rng = np.random.default_rng(1)
    optimiser = torch.optim.AdamW(net.parameters(), lr=3e-3, weight_decay=1e-3)
    began, step, best, order, shown = time.time(), 0, None, [], []
    while (passed := (time.time() - began) / 60) < minutes:
        for group in optimiser.param_groups:
            group["lr"] = 3e-3 * min(1, (step + 1) / 100) * (0.02 + 0.98 * 0.5 * (1 + np.cos(np.pi * min(1, passed / minutes))))
        if len(order) < BATCH:
            order = list(rng.permutation(len(kept)))
        bands, targets, counts = (torch.from_numpy(np.stack(part)) for part in zip(*(_sample(kept[order.pop()], rng) for _ in range(BATCH))))
        net.train()
        loss = (F.binary_cross_entropy_with_logits(net(bands), targets, reduction="none") * counts).sum() / counts.sum()
        optimiser.zero_grad()
        loss.backward()
        torch.nn.utils.clip_grad_norm_(net.parameters(), 1.0)
        optimiser.step()
        shown.append(loss.item())
        step += 1
        if step % 250 == 0:
            scores = _scores(net, apart)
            value = float(np.mean([score for score, _, _ in scores.values()]))
            print(f"{passed:5.1f} min, step {step}: {np.mean(shown):.4f} apart {scores}", flush=True)
            shown = []
            if best is None or value > best[0]:
                best = (value, {key: part.clone() for key, part in net.state_dict().items()})
    net.load_state_dict(best[1])


def main():
    folder, core = sys.argv[1:3]
    minutes = float(sys.argv[3]) if len(sys.argv) > 3 else 20
    torch.manual_seed(1)
    torch.set_num_threads(int(os.environ.get("THREADS", os.cpu_count())))
    kept, apart = _load(folder)
    net = DrumNet()
    print(f"{len(kept)} pieces, {len(apart)} apart, {sum(p.numel() for p in net.parameters())} weights", flush=True)
    _train(net, kept, apart, minutes)
    numbers = b"".join(whole(layer) for layer in (net.first, *net.blocks, net.heads))
    scores = _scores(net, apart)
    print("as it is written:", scores)
    packed = lambda values: base64.b64encode(values).decode()
    sure = {kind: round(least, 2) for kind, (_, least, _) in scores.items()}
    json.dump({"dilations": DILATIONS, "sure": sure, "weights": packed(numbers)}, open(os.path.join(core, "drum-weights.json"), "w"))
    rng = np.random.default_rng(5)
    bands = np.clip(rng.normal(60, 40, (120, 64)), 0, 255).astype(np.uint8)
    bands[::25] = 200
    with torch.no_grad():
        said = net(torch.from_numpy(bands.astype(np.float32) / 100)[None])[0].numpy()
    json.dump({"bands": packed(bands.tobytes())} | {kind: said[i].round(5).tolist() for i, kind in enumerate(KINDS)}, open(os.path.join(core, "drum-golden.json"), "w"))


if __name__ == "__main__":
    main()
