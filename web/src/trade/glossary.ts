/** Words of the trade, explained on demand. */
export const GLOSSARY = {
  "90": "A quarter turn. Its measure is taken to the back: the outermost surface of the pipe past the bend, where it would touch a wall.",
  offset:
    "Two bends of one angle, the second turned half round: the pipe goes on along its old heading, moved sideways.",
  "offset of two angles":
    "Its second bend turns back by another angle than its first, so that the pipe goes on at a slant, as along a slope.",
  "rolled offset":
    "An offset that leaves its line in two directions at once; the true rise is the long side of both.",
  "box offset":
    "A small offset right at a box that lines the pipe up with its knockout. An inch of straight pipe must be left, or it will not seat.",
  "three-bend saddle":
    "Over something round or narrow and back down: a centre bend and two of half its angle. Measured to the centre of the thing.",
  "four-bend saddle": "Over something wide: up by one offset, flat on top, down by another.",
  kick: "One small bend in a leg, next to a 90, that lifts the rest to another elevation. About three times the rise back is comfortable.",
  sweep: "One large radius made of many small bends (shots), beside a larger pipe.",
  "pull point":
    "A box or fitting where wire can be pulled. The count of degrees (mostly 360 at most) starts again there.",
  coupling:
    "Joins two lengths of pipe. Never in a bend, nor where the shoe must grip. What it takes: the gap that it keeps between the two pipe ends.",
  spacing: "Distance along the pipe between the marks of two bends.",
  shrink: "How much nearer the far end comes because of an offset or saddle.",
  room: "Length along the leg that the bends need.",
  gain: "Outside legs of a 90 added up, less the pipe actually used.",
  deduct: "Stub height to the back, less this, is where the arrow's mark goes.",
  clearance: "The least distance kept between the pipe's surface and what it gets over.",
  closure:
    "As a surveyor closes a traverse: the end reached along the run, against the end box measured on its own.",
  "developed length": "The length of straight pipe that the bent shape takes, along its middle.",
  "stand-off": "Gap between the surface and the pipe's underside at the strap.",
} as const;

export type Word = keyof typeof GLOSSARY;
