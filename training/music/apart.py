"""How far the network carries to styles it never heard: `python3 -m music.apart PIECES [MINUTES]`.

Trains two networks from nothing, each on one half of the styles, then tells how well each hears pieces kept apart, of the
styles it had and of those it had not. Neither is as good as one that had all: what counts is the difference.
"""

import multiprocessing
import sys

import numpy as np
import torch

from .net import Net
from .train import Pieces, judged, sample, train

NARROW = 32
LIKELY, NEAR = 0.3, 0.07


def half_of(style, styles):
    """0 or 1; None for what is of no one style. An accompaniment of `mma` goes with the style of ours that its name holds."""
    if style in ("people", "metronome"):
        return None
    name = style.removeprefix("mma-")
    own = [one for one in styles if one in name]
    return styles.index(max(own, key=len)) % 2 if own else sum(map(ord, name.rstrip("0123456789"))) % 2


def peaks(odds):
    """Moments, in seconds, at which an output has a top that is likely enough."""
    said = 1 / (1 + np.exp(-odds))
    top = (said[1:-1] > said[:-2]) & (said[1:-1] >= said[2:]) & (said[1:-1] > LIKELY)
    return (np.flatnonzero(top) + 1) / 50 + 0.005


def f_measure(truth, found):
    hits, k = 0, 0
    for at in truth:
        while k < len(found) and found[k] < at - NEAR:
            k += 1
        if k < len(found) and found[k] <= at + NEAR:
            hits, k = hits + 1, k + 1
    return 2 * hits / max(1, len(truth) + len(found))


def heard(net, pieces):
    """Means over pieces: loss of beats and of first beats, F of their tops."""
    rows = []
    net.eval()
    for piece in pieces:
        bands, targets, counts = sample(piece, np.random.default_rng(1), False)
        with torch.no_grad():
            odds = net(torch.from_numpy(bands[None]))[0].numpy()
        end = counts[0].sum() / 50
        loss = judged(net, [(bands, targets, counts)])[1]
        f = [f_measure(piece[key][piece[key] < end], found[found < end]) for key, found in (("beats", peaks(odds[0])), ("downbeats", peaks(odds[1])))]
        rows.append([loss[0], loss[1], *f])
    return np.mean(rows, axis=0)


def one_half(given):
    folder, half, minutes = given
    torch.manual_seed(1)
    torch.set_num_threads(1)
    pieces = Pieces(folder)
    # Styles of our own arranger are those that most pieces have.
    styles = sorted({one["facts"]["style"] for one in pieces.kept if not one["facts"]["style"].startswith("mma-")} - {"people", "metronome"})
    of = lambda piece: half_of(piece["facts"]["style"], styles)
    kept = [piece for piece in pieces.kept if of(piece) in (half, None)]
    apart = {name: [piece for piece in pieces.apart if of(piece) == which] for name, which in (("styles it had", half), ("styles it never heard", 1 - half))}
    net, best = Net(NARROW), Net(NARROW)
    train(net, kept, [sample(piece, np.random.default_rng(1), False) for piece in apart["styles it had"]], minutes, 2e-3, lambda one: best.load_state_dict(one.state_dict()))
    return {name: (len(some), heard(best, some)) for name, some in apart.items()}


def main():
    folder, minutes = sys.argv[1], float(sys.argv[2]) if len(sys.argv) > 2 else 40
    with multiprocessing.Pool(2) as pool:
        halves = pool.map(one_half, [(folder, 0, minutes), (folder, 1, minutes)])
    for name in halves[0]:
        count = sum(half[name][0] for half in halves)
        row = sum(half[name][0] * half[name][1] for half in halves) / count
        print(f"{name}: {count} pieces, loss of beats {row[0]:.4f}, of first beats {row[1]:.4f}, F {row[2]:.3f} and {row[3]:.3f}")


if __name__ == "__main__":
    main()
