/** Beside what can be read: soft hyphens, joiners, marks of direction, and what stands at the beginning of files. */
export const INVISIBLE = /[\u00ad\u200b-\u200f\u202a-\u202e\u2060-\u2064\ufeff]/g;
/** Blanks of other widths than the usual one. */
export const WIDE_BLANKS = /[\u00a0\u2000-\u200a\u202f\u3000]/g;
