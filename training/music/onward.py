"""Goes on the way that a training went: `python3 -m music.onward START.pt TRAINED.pt OUT.pt BY`.

What is written is the start and `BY` times the way from it to what was trained: 1 is what was trained. A training that
ends before it has come to rest hears better a little further on. Channels that the start lacks stay as they were trained.
"""

import sys

import torch

from .net import Net, widen


def main():
    start, trained = (torch.load(path) for path in sys.argv[1:3])
    by = float(sys.argv[4])
    net = Net(trained["heads.weight"].shape[1])
    net.load_state_dict(trained)
    before = Net(trained["heads.weight"].shape[1])
    before.load_state_dict(trained)
    widen(before, start)
    with torch.no_grad():
        for now, then in zip(net.parameters(), before.parameters()):
            now.copy_(then + by * (now - then))
    torch.save(net.state_dict(), sys.argv[3])


if __name__ == "__main__":
    main()
