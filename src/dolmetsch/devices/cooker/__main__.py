"""Run a simulated cooker: ``python -m dolmetsch.devices.cooker --port 7402``."""

import argparse
import asyncio
import contextlib

from dolmetsch.devices.cooker.server import serve
from dolmetsch.devices.cooker.simulated import open_cooker


def main() -> None:
    """Run a cooker until it is stopped."""
    parser = argparse.ArgumentParser(description="A simulated cooker.")
    parser.add_argument("--name", default="drum")
    parser.add_argument("--port", type=int, required=True)
    parser.add_argument("--seed", type=int, default=None)
    options = parser.parse_args()
    with contextlib.suppress(KeyboardInterrupt):
        asyncio.run(serve(open_cooker(options.seed), options.name, options.port))


if __name__ == "__main__":
    main()
