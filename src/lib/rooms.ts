export interface RoomDescription {
  name: string;
  /** What it is for. */
  says: string;
}

/** The rooms of a piece, in the order of the work, with what each is for. */
export const ROOMS = {
  survey: { name: 'Survey', says: 'the first look' },
  structure: { name: 'Structure', says: 'form, keys, chords, phrases' },
  reading: { name: 'Reading', says: 'the bar-by-bar work' },
  hearing: { name: 'Hearing', says: 'the reading against the page' },
  proof: { name: 'Proof', says: 'what does not add up' },
  press: { name: 'Press', says: 'the edition' },
  rehearse: { name: 'Rehearse', says: 'from the edition to practice' }
} as const satisfies Record<string, RoomDescription>;

export type Room = keyof typeof ROOMS;
export const ROOM_KEYS = Object.keys(ROOMS) as Room[];

/** Address of a room. @param reading the one that is open, where it is not the first */
export const roomAddress = (piece: number | string, room: Room, reading: number | string | null = null): string =>
  `/pieces/${piece}/${room}${reading === null ? '' : `?reading=${reading}`}`;
