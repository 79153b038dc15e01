"""What a feature asks of those above it, so that it need not know them: they know it.

Each question is an ``Upward``, beside what asks it; who answers each is said once, in ``config/answers.py``.
"""

from typing import Generic, TypeVar

Answer = TypeVar("Answer")


class Upward(Generic[Answer]):
    """A question asked of a feature above; called, it gives whoever answers it."""

    def __init__(self, about: str) -> None:
        self._about = about
        self._answer: Answer | None = None

    def answer_by(self, answer: Answer) -> None:
        """Ask ``answer`` from now on."""
        self._answer = answer

    def __call__(self) -> Answer:
        """Whoever answers.

        Raises:
            LookupError: the application has not started, so nobody does.
        """
        if self._answer is None:
            raise LookupError(f"nobody answers what is asked of {self._about}")
        return self._answer
