"""Waiting for what a busy machine does later."""

import time

#: Seconds after which nothing will come any more, however busy the machine is.
LONGEST = 120


def wait_for(is_so, what):
    """Wait until ``is_so()``; ``what`` is said where it never comes."""
    deadline = time.monotonic() + LONGEST
    while not (answer := is_so()):
        assert time.monotonic() < deadline, f"waited {LONGEST} s for {what}"
        time.sleep(0.05)
    return answer
