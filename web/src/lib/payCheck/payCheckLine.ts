import type { Api } from '$lib/api/client';

type Line = Api['PayCheckLine'];

/** Whether it was found right, and is still as it was then. */
export const isChecked = (line: Line) => line.check?.holds ?? false;

/** What can be ticked without another look: nobody did, and nothing stands against it. */
export const isClean = (line: Line) => !isChecked(line) && line.findings.length === 0 && line.check === null && line.amounts !== null;

/** The lines as the server is told of them: who, and which version was seen. */
export const seen = (lines: Line[]) => lines.map((l) => ({ employmentId: l.employmentId, version: l.version }));
