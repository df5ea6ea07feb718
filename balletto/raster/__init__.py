"""Pixels in memory, and what is done to them: blurred, smeared, coloured."""

import cv2

# Frames are drawn side by side, each by one core; and a process that forks must have no threads.
cv2.setNumThreads(1)
