"""The one command: reads its words, does what they say, and gives the exit status."""

import os
import sys

from dolmetsch.command.telling import RefusedError, TroubleError, say
from dolmetsch.command.watching import StopAskedError
from dolmetsch.command.words import read_words


def main(words: list[str]) -> int:
    """Run the command; gives its exit status."""
    options = read_words(words)
    # where Debian keeps servers, and ordinary users do not look
    os.environ["PATH"] = f"{os.environ.get('PATH', '')}:/usr/local/sbin:/usr/sbin:/sbin"
    try:
        options.run(options)
    except TroubleError as trouble:
        say(str(trouble))
        return 1
    except RefusedError as refused:
        sys.stderr.buffer.write(f"dolmetsch: {' '.join(str(refused).split())}\n".encode())
        return 2
    except BrokenPipeError:
        # whoever read the answer had enough of it
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except (KeyboardInterrupt, StopAskedError):
        say("Stopped.")
        return 130
    return 0
