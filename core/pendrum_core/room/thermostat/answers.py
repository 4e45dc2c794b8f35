"""How the air of rooms answers to a watt that is brought into it through a step: what supply air is worked out with.

Source: superposition of periodic responses of a linear balance.
"""

import numpy as np
import scipy.fft
from numpy.typing import NDArray

from pendrum_core.quantities.constants import STEPS_PER_DAY
from pendrum_core.room.balance.harmonics import At, step_response
from pendrum_core.room.balance.solve import Solved
from pendrum_core.room.thermostat.control import response_k_w

Array = NDArray[np.float64]
SUMMER, WINTER = 0, 1
_LEAST_W_K = 0.01  # of a room that exchanges heat with nothing, so that a watt that lasts ends somewhere


def air_answers(solved: Solved) -> Array:
    """Air temperature at the ends of steps for a watt through step 0 of every day, summer and winter, (R, 2, 144) [K/W].

    At the ends, as a thermostat holds it: means held from step to step would make the heat swing.
    """
    rooms = solved.stack.rooms
    leak = np.array([room.winter_leak_m3_s + room.direct_outdoor_air_m3_s + room.transfer_m3_s for room in rooms])
    lasting = solved.row.own_air[:, 0].real
    exchanges = (
        np.maximum(exchange, _LEAST_W_K - lasting)
        for exchange in (solved.stack.exchange_w_k, leak * solved.outside.air_heat_j_m3k)
    )
    responses = [step_response(response_k_w(solved, exchange), At.END, behind_mass=True) for exchange in exchanges]
    return np.stack([np.asarray(scipy.fft.irfft(r, n=STEPS_PER_DAY, axis=-1)) for r in responses], axis=1)
