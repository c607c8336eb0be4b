"""Draws recurrence rules at random and says where python-dateutil finds them to fall.

    /usr/bin/python3 draw-with-dateutil.py SEED COUNT > rules.dateutil.txt

prints COUNT lines: rule, start, the first starts separated by spaces; the columns by tabs. python-dateutil 2.8.2
(Debian's python3-dateutil) made the file that is kept here, with seed 2026 and count 2000. Starts are local times
without a zone; what zones do to them is checked elsewhere.
"""

import random
import signal
import sys
from datetime import datetime, timedelta
from itertools import islice

from dateutil.rrule import rrulestr

DAYS = ["MO", "TU", "WE", "TH", "FR", "SA", "SU"]


def some(draw, values, most=3):
    return ",".join(str(value) for value in draw.sample(values, draw.randint(1, most)))


def signed(limit):
    return [value for value in range(-limit, limit + 1) if value]


def maybe(draw, chance, part):
    return [part()] if draw.random() < chance else []


def draw_rule(draw):
    frequency = draw.choice(["YEARLY", "YEARLY", "MONTHLY", "MONTHLY", "WEEKLY", "DAILY", "HOURLY", "MINUTELY", "SECONDLY"])
    within_day = frequency in ("HOURLY", "MINUTELY", "SECONDLY")
    most = {"YEARLY": 4, "MONTHLY": 14, "WEEKLY": 6, "DAILY": 50, "HOURLY": 50, "MINUTELY": 2000, "SECONDLY": 90000}
    parts = [f"FREQ={frequency}", f"INTERVAL={draw.choice([1, 1, draw.randint(1, most[frequency])])}"]
    parts += maybe(draw, 0.3, lambda: "BYMONTH=" + some(draw, range(1, 13), 4))
    weeks = frequency == "YEARLY" and draw.random() < 0.2
    if weeks:
        parts.append("BYWEEKNO=" + some(draw, signed(53)))
    if frequency == "YEARLY" and not weeks or within_day:
        parts += maybe(draw, 0.15, lambda: "BYYEARDAY=" + some(draw, signed(366), 12))
    if frequency != "WEEKLY":
        parts += maybe(draw, 0.25, lambda: "BYMONTHDAY=" + some(draw, signed(31), 6))
    if frequency in ("YEARLY", "MONTHLY") and not weeks and draw.random() < 0.3:
        limit = 5 if frequency == "MONTHLY" or any(part.startswith("BYMONTH=") for part in parts) else 53
        named = [draw.choice(["", str(draw.choice(signed(limit)))]) + draw.choice(DAYS) for _ in range(draw.randint(1, 3))]
        parts.append("BYDAY=" + ",".join(dict.fromkeys(named)))
    else:
        parts += maybe(draw, 0.35, lambda: "BYDAY=" + some(draw, DAYS, 5))
    parts += maybe(draw, 0.15, lambda: "BYHOUR=" + some(draw, range(24), 4))
    parts += maybe(draw, 0.15, lambda: "BYMINUTE=" + some(draw, range(60), 4))
    parts += maybe(draw, 0.1, lambda: "BYSECOND=" + some(draw, range(60), 3))
    if any(part.startswith("BY") for part in parts):
        parts += maybe(draw, 0.25, lambda: "BYSETPOS=" + some(draw, [-5, -4, -3, -2, -1, 1, 2, 3, 4, 5, 7, 11], 3))
    parts += maybe(draw, 0.3, lambda: "WKST=" + draw.choice(DAYS))
    return ";".join(parts)


def main(seed, count):
    draw = random.Random(seed)
    written = 0
    while written < count:
        rule = draw_rule(draw)
        start = datetime(2024, 1, 1) + timedelta(days=draw.randint(0, 1500), seconds=draw.choice([0, 3600 * 9, 3600 * 19 + 1800, draw.randint(0, 86399)]))

        days = {"YEARLY": 3700, "MONTHLY": 3700, "WEEKLY": 1500, "DAILY": 800, "HOURLY": 60}
        frequency = rule.split(";")[0].removeprefix("FREQ=")
        until = (start + timedelta(days=days.get(frequency, 5))).strftime("%Y%m%dT%H%M%S")
        rule = f"{rule};UNTIL={until}"
        try:
            signal.setitimer(signal.ITIMER_REAL, 0.1)
            found = list(islice(rrulestr(rule, dtstart=start), 6))
        except TimeoutError:
            # It goes through a rule by seconds one by one, past its end too; such a rule is drawn anew.
            continue
        except ValueError:
            found = []  # "generates an empty set": an interval that never meets the hours that are named
        finally:
            signal.setitimer(signal.ITIMER_REAL, 0)
        print(rule, start.strftime("%Y%m%dT%H%M%S"), " ".join(one.strftime("%Y%m%dT%H%M%S") for one in found), sep="\t")
        written += 1


def give_up(*_):
    raise TimeoutError


signal.signal(signal.SIGALRM, give_up)
main(int(sys.argv[1]), int(sys.argv[2]))
