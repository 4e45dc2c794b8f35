"""What becomes of an error in one part of a calculation: that part fails with a reason, everything else goes on."""

import logging
import secrets

_log = logging.getLogger("pendrum.calculation")


def reason_of(error: Exception, what: str) -> str:
    """Why a part could not be calculated, in a sentence.

    What the calculation itself refuses (ValueError) says why. Anything else is a fault of the program: it is logged with its
    trace under a number that the sentence carries.
    """
    if type(error) is ValueError:
        return str(error)
    number = secrets.token_hex(4)
    _log.error("fault %s: %s could not be calculated", number, what, exc_info=error)
    return f"{what} could not be calculated: a fault of the program, number {number}. Everything else was."
