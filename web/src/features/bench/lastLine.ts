/** The line of a routine at which this window last stood, so that whoever comes back from Show stands there again. */
const KEY = (routine: number) => `gp-line-${routine}`;

export const keepLine = (routine: number, line: number) => sessionStorage.setItem(KEY(routine), String(line));

/** 0 where this window has not been there. */
export const lastLine = (routine: number) => Number(sessionStorage.getItem(KEY(routine)) ?? 0);
