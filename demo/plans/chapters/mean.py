"""The mean of a year."""

def mean(readings):
    """The mean of the hours that were read; empty ones count for nothing."""
    read = [height for height in readings if height is not None]
    return sum(read) / len(read)
