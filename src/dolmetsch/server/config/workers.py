"""How a worker process of the production server begins and ends: streams first, so that it need not wait."""

import ctypes
import gc
import signal
from types import FrameType
from typing import Any, Final

from prometheus_client.multiprocess import mark_process_dead

from dolmetsch.server.scales.hub import hub

_PR_SET_PDEATHSIG: Final = 1


def when_ready(_arbiter: Any) -> None:
    """Put what is loaded aside from the collector of garbage before workers are made of it: going through it
    all again and again held requests up for a tenth of a second.
    """
    gc.collect()
    gc.freeze()


def post_fork(_arbiter: Any, _worker: Any) -> None:
    """A worker ends with its master, also when that is killed: it must not go on holding the port."""
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGKILL)


def child_exit(_arbiter: Any, worker: Any) -> None:
    """What a worker counted stays counted when it ends."""
    mark_process_dead(worker.pid)  # type: ignore[no-untyped-call]


def post_worker_init(_worker: Any) -> None:
    """Let every way of being asked to stop end the streams before the worker waits for its requests."""
    for asked in (signal.SIGTERM, signal.SIGINT, signal.SIGQUIT):
        signal.signal(asked, _closing_first(signal.getsignal(asked)))


def _closing_first(usual: Any) -> Any:
    def handle(number: int, frame: FrameType | None) -> None:
        hub.close()
        usual(number, frame)

    return handle
