import type { Room } from "./types";

/** Which place a system has in a room: it serves it first, second, or not at all (0). */
export function rankIn(room: Room, system: string): 0 | 1 | 2 {
  if (room.air_system === system) return 1;
  if (room.second_system !== system) return 0;
  return room.air_system ? 2 : 1;
}

/** Whether a room is on a system. */
export const isServedBy = (room: Room, system: string): boolean => rankIn(room, system) > 0;

/** Key of a room's airflow by a system among the results. */
export const airflowKey = (room: Room, system: string): string =>
  rankIn(room, system) === 2 ? `${room.id}/2` : room.id;
