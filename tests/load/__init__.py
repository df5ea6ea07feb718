"""What the running application bears: many people at once, and services that are killed.

`bin/balletto load editing` and `bin/balletto load faults` start an application of their own, on
loopback, in a folder that goes away with it. Short forms of both run with every test.
"""
