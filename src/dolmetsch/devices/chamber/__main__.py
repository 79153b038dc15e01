"""Run a simulated chamber: ``python -m dolmetsch.devices.chamber --port 7404``."""

import argparse
import asyncio
import contextlib

from dolmetsch.devices.chamber.simulated import open_chamber
from dolmetsch.devices.cooker.server import serve


def main() -> None:
    """Run a chamber until it is stopped."""
    parser = argparse.ArgumentParser(description="A simulated drying chamber.")
    parser.add_argument("--name", default="loft")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--seed", type=int, default=None)
    options = parser.parse_args()
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(serve(open_chamber(options.seed), options.name, options.port))


if __name__ == "__main__":
    main()
