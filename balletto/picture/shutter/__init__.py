"""The shutter: the blur of motion as the mean of several drawings, and how many are needed."""
