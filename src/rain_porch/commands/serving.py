"""`rain-porch serve` and `demo`."""

from __future__ import annotations

import argparse
import os

from ..api.serve import serve
from ..demo.town import prepare_demo
from ..settings import FEED_PORT, data_folder, setting
from ..standins.feed import TOKEN, serve_beside
from ..standins.mail import serve_mail

MAIL_PORT = 8042


def run_serve(args: argparse.Namespace) -> int:
    serve(data_folder(args.data), args.host, args.port)
    return 0


def run_demo(args: argparse.Namespace) -> int:
    folder = data_folder(args.data or ".demo")
    prepare_demo(folder, say=lambda text: print(text, flush=True))
    if args.no_serve:
        return 0
    if address := serve_beside(folder / "files/listings.csv", FEED_PORT):
        print(f"A listing feed stands beside it at {address}, its token {TOKEN}", flush=True)
    if not setting("RAIN_PORCH_SMTP") and (server := serve_mail(folder / "mail", MAIL_PORT)):
        os.environ["RAIN_PORCH_SMTP"] = server
        print(f"Messages go to a stand-in at {server}, which lays them down in {folder / 'mail'}", flush=True)
    return run_serve(argparse.Namespace(data=str(folder), host=args.host, port=args.port))
