"""The network: log bands in, beat, downbeat and section activations out, 50 times a second."""

import numpy as np
import torch
from torch import nn
from torch.nn import functional as F

CHANNELS = 48
DILATIONS = [1, 2, 4, 8, 16, 32, 64, 128, 256, 512]
OUTPUTS = ("beat", "downbeat", "section")


class Block(nn.Module):
    """A dilated convolution over time, a mix of channels, and the input added (Böck and Davies 2020, simplified)."""

    def __init__(self, channels, dilation):
        super().__init__()
        self.dilated = nn.Conv1d(channels, channels, 5, dilation=dilation, padding=2 * dilation)
        self.mixed = nn.Conv1d(channels, channels, 1)
        self.dropout = nn.Dropout(0.1)

    def forward(self, x):
        return x + self.mixed(self.dropout(F.elu(self.dilated(x))))


class Net(nn.Module):
    def __init__(self, channels=CHANNELS):
        super().__init__()
        self.first = nn.Conv2d(1, 16, (4, 3), stride=(2, 1), padding=(1, 0))
        self.second = nn.Conv2d(16, 20, (3, 3), padding=(1, 0))
        self.joined = nn.Conv1d(20 * 6, channels, 1)
        self.blocks = nn.ModuleList(Block(channels, dilation) for dilation in DILATIONS)
        self.heads = nn.Conv1d(channels, len(OUTPUTS), 1)

    def forward(self, bands):
        """`bands`: batch, frames (even), 64. Returns logits: batch, 3, frames / 2."""
        x = F.elu(F.max_pool2d(self.first(bands[:, None]), (1, 3)))
        x = F.elu(F.max_pool2d(self.second(x), (1, 3)))
        x = x.permute(0, 1, 3, 2).flatten(1, 2)
        x = F.elu(self.joined(x))
        for block in self.blocks:
            x = block(x)
        return self.heads(F.elu(x))

    def layers(self):
        """In the order in which their weights are written."""
        return [self.first, self.second, self.joined, *(part for block in self.blocks for part in (block.dilated, block.mixed)), self.heads]


def widen(net, narrow):
    """Begins where a network of fewer channels ended: says the same, since nothing that was there listens to what is new yet
    (after Chen, Goodfellow and Shlens 2016, "Net2Net", with new channels in place of doubled ones)."""
    with torch.no_grad():
        for name, new in net.named_parameters():
            old = narrow[name]
            if new.dim() > 1:
                new[: old.shape[0], old.shape[1] :] = 0
                new[: old.shape[0], : old.shape[1]] = old
            else:
                new[: old.shape[0]] = old


def whole(layer):
    """Rounds a layer's weights to bytes, each output by a scale of its own. Returns what is written: scales, biases, bytes."""
    with torch.no_grad():
        scale = layer.weight.abs().amax(dim=tuple(range(1, layer.weight.dim())), keepdim=True) / 127
        rounded = torch.round(layer.weight / scale)
        layer.weight.copy_(rounded * scale)
        floats = [values.detach().numpy().astype("<f4").tobytes() for values in (scale, layer.bias)]
        return b"".join(floats) + rounded.numpy().astype(np.int8).tobytes()


if __name__ == "__main__":
    net = Net()
    print(sum(p.numel() for p in net.parameters()), net(torch.zeros(1, 400, 64)).shape)
