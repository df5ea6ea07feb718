"""Motion: from a scene and times to the numbers of everything that moves, for all units at once
(`evaluate`): when each has its turn, how strongly it takes part, where it is (`spaces`)."""
