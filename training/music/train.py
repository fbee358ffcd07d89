"""Trains the network: `python3 -m music.train PIECES OUT.pt [MINUTES] [START]`. From a start it goes on at half the rate.
What is written is a running mean of the weights (Polyak and Juditsky 1992), which hears better than those of any one step.

A start is what an earlier training wrote, of as many channels or fewer.

Pieces whose number ends in 7 are kept apart: they choose nothing but the step that is kept.
"""

import copy
import glob
import json
import os
import sys
import time

import numpy as np
import torch
from torch.nn import functional as F

from .net import CHANNELS, Net, widen

BATCH, FRAMES = 4, 5200
SECTION_WEIGHT = 0.15
MEAN_OVER = 1 / 500


class Pieces:
    """All pieces of a folder in memory."""

    def __init__(self, folder):
        self.kept, self.apart = [], []
        for path in sorted(glob.glob(os.path.join(folder, "*.npz"))):
            with np.load(path) as data:
                piece = {key: data[key] for key in ("bands", "beats", "downbeats", "sections")} | {"facts": json.loads(str(data["facts"]))}
            (self.apart if path[-5] == "7" else self.kept).append(piece)


def sample(piece, rng, vary):
    """Bands, targets (3 times half as many frames) and which outputs count, of one piece; varied where asked."""
    stretch = float(np.exp(rng.uniform(-0.09, 0.09))) if vary else 1.0
    bands = varied(piece["bands"], rng, stretch) if vary else piece["bands"].astype(np.float32) / 100
    start = int(rng.integers(0, max(1, len(bands) - FRAMES))) if vary else 0
    bands = bands[start : start + FRAMES]
    used = len(bands)
    bands = np.pad(bands, ((0, FRAMES - used), (0, 0)))
    targets = np.stack([_target(piece[key] * stretch - start / 100, width) for key, width in (("beats", 0.03), ("downbeats", 0.03), ("sections", 0.5))])
    counts = np.zeros((3, FRAMES // 2), np.float32)
    counts[:, : used // 2] = 1
    facts = piece["facts"]
    counts[1] *= facts["bars_known"]
    counts[2] *= facts["sections_known"] * SECTION_WEIGHT
    return bands, targets, counts


def _target(times, width):
    """Triangles of height one around each time, on the frames of the output."""
    out = np.zeros(FRAMES // 2, np.float32)
    for time_ in times:
        low, high = int((time_ - width) * 50), int((time_ + width) * 50) + 2
        for frame in range(max(0, low), min(len(out), high)):
            out[frame] = max(out[frame], 1 - abs(frame / 50 + 0.005 - time_) / width)
    return out


def varied(bands, rng, stretch):
    """Played faster or slower, louder, brighter, higher, through another room, more or less even, with a gap."""
    decibels = rng.uniform(-14, 8) + np.interp(np.arange(64), np.linspace(0, 63, 5), rng.normal(0, 4, 5))
    gain = 10 ** (decibels / 20)
    if rng.random() < 0.3:
        gain *= 10 ** (np.interp(np.arange(64), np.linspace(0, 63, 9), rng.normal(0, 7, 9)) / 20)
    if rng.random() < 0.1:
        gain[int(rng.integers(30, 60)) :] = 0
    if rng.random() < 0.3:
        for _ in range(int(rng.integers(1, 3))):
            low = int(rng.integers(0, 60))
            gain[low : low + int(rng.integers(2, 11))] *= rng.choice([0.0, 0.1])
    table = np.log10(1 + gain[:, None] * (10 ** (np.arange(256) / 100)[None] - 1)).astype(np.float32)
    at = np.minimum(np.arange(int(len(bands) * stretch)) / stretch, len(bands) - 1.001)
    low = at.astype(int)
    part = (at - low)[:, None].astype(np.float32)
    loud = table[np.arange(64)[None], bands]
    bands = loud[low] * (1 - part) + loud[low + 1] * part
    if rng.random() < 0.4:
        bands = np.roll(bands, int(rng.integers(-3, 4)), axis=1)
    if rng.random() < 0.35:
        bands = washed(bands, rng)
    if rng.random() < 0.25:
        bands = bands ** rng.uniform(0.7, 1.3)
    if rng.random() < 0.15:
        start = int(rng.integers(0, len(bands)))
        bands[start : start + int(rng.integers(50, 500))] *= rng.choice([0.0, 0.3])
    return bands


def washed(bands, rng):
    """A wall of guitars, ringing cymbals or a crowd over it: what goes on all the time, louder and softer by the second."""
    spectrum = 10 ** (np.interp(np.arange(64), np.linspace(0, 63, 6), rng.normal(0, 6, 6)) / 20)
    loud = 10**bands - 1
    level = np.quantile(loud, 0.9) * 10 ** (rng.uniform(-22, -2) / 20)
    knots = max(2, len(bands) // 100)
    swell = 10 ** (np.interp(np.arange(len(bands)), np.linspace(0, len(bands), knots), rng.normal(0, 3, knots)) / 20)
    noise = np.sqrt(-np.log(rng.random((len(bands), 64), dtype=np.float32) + 1e-9))
    wash = (level * swell[:, None] * spectrum[None] * noise).astype(np.float32)
    return np.log10(1 + np.sqrt(loud**2 + wash**2)).astype(np.float32)


def loss_of(net, batch):
    bands, targets, counts = (torch.from_numpy(np.stack(part)) for part in zip(*batch))
    each = F.binary_cross_entropy_with_logits(net(bands), targets, reduction="none")
    # A downbeat is rarer than a beat.
    weights = counts * torch.tensor([1.0, 1.6, 1.0])[None, :, None]
    return (each * weights).sum() / weights.sum(), [(each[:, i] * counts[:, i]).sum().item() / max(1e-9, counts[:, i].sum().item()) for i in range(3)]


def judged(net, apart):
    """The loss of pieces that are kept apart, as they are, and that of each output."""
    net.eval()
    with torch.no_grad():
        rows = [loss_of(net, apart[i : i + 8]) for i in range(0, len(apart), 8)]
    return float(np.mean([row[0].item() for row in rows])), np.mean([row[1] for row in rows], axis=0).round(4)


def train(net, kept, apart, minutes, top, keep, best=9.0):
    """Goes on for some minutes, at a rate that falls from `top`; calls `keep` with each network that is the best so far."""
    rng = np.random.default_rng(1)
    mean_net = copy.deepcopy(net)
    optimiser = torch.optim.AdamW(net.parameters(), lr=top, weight_decay=1e-3)
    began, step, order, shown = time.time(), 0, [], []
    while (passed := (time.time() - began) / 60) < minutes:
        rate = top * min(1, (step + 1) / 100) * (0.02 + 0.98 * 0.5 * (1 + np.cos(np.pi * min(1, passed / minutes))))
        for group in optimiser.param_groups:
            group["lr"] = rate
        if len(order) < BATCH:
            order = list(rng.permutation(len(kept)))
        batch = [sample(kept[order.pop()], rng, True) for _ in range(BATCH)]
        net.train()
        loss, parts = loss_of(net, batch)
        optimiser.zero_grad()
        loss.backward()
        torch.nn.utils.clip_grad_norm_(net.parameters(), 1.0)
        optimiser.step()
        with torch.no_grad():
            for slow, now in zip(mean_net.parameters(), net.parameters()):
                slow.lerp_(now, max(MEAN_OVER, 1 / (step + 2)))
        shown.append([loss.item(), *parts])
        step += 1
        if step % 100 == 0:
            value, detail = judged(mean_net, apart)
            print(f"{passed:5.1f} min, step {step}: {np.mean(shown, axis=0).round(4)} apart {value:.4f} {detail}", flush=True)
            shown = []
            if value < best:
                best = value
                keep(mean_net)


def main():
    folder, out = sys.argv[1:3]
    minutes = float(sys.argv[3]) if len(sys.argv) > 3 else 60
    torch.manual_seed(1)
    torch.set_num_threads(int(os.environ.get("THREADS", os.cpu_count())))
    net, top, best = Net(int(os.environ.get("CHANNELS", CHANNELS))), 2e-3, 9.0
    pieces = Pieces(folder)
    print(f"{len(pieces.kept)} pieces, {len(pieces.apart)} apart, {sum(p.numel() for p in net.parameters())} weights", flush=True)
    apart = [sample(piece, np.random.default_rng(1), False) for piece in pieces.apart]
    if len(sys.argv) > 4:
        widen(net, torch.load(sys.argv[4]))
        top = 1e-3
        best, detail = judged(net, apart)
        print(f"at the start: apart {best:.4f} {detail}", flush=True)
    train(net, pieces.kept, apart, minutes, top, lambda one: torch.save(one.state_dict(), out), best)


if __name__ == "__main__":
    main()
