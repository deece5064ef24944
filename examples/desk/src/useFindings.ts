import { useEffect, useRef, useState } from "react";
import { Asker } from "./asker.ts";
import type { Findings, Question, SideFindings } from "./findings.ts";

interface Known {
  /** What is wrong with the expressions, as soon as it is known. */
  readonly sides: readonly SideFindings[] | undefined;
  /** The last question that was answered, as far as it was; never one whose file was refused. */
  readonly answered: Partial<Findings>;
  /** The last answer took too long. */
  readonly isStopped: boolean;
  /** What was said of the file that was read last. */
  readonly reading: { readonly file: File | undefined; readonly notices: readonly string[]; readonly isRefused: boolean };
}

const nothingKnown: Known = {
  sides: undefined,
  answered: {},
  isStopped: false,
  reading: { file: undefined, notices: [], isRefused: false },
};

/** The newest findings; the ones before are shown until then. */
export function useFindings(question: Question): Known {
  const [known, setKnown] = useState(nothingKnown);
  const asker = useRef<Asker>(undefined);
  useEffect(() => {
    if (asker.current) asker.current.ask(question);
    else
      asker.current = new Asker(question, (findings, isLast, isStopped) =>
        setKnown((before) => {
          const { isRefused = false, notices = [], sides = before.sides } = findings;
          const { file } = findings.question!;
          const reading = file === before.reading.file ? before.reading : { file, notices, isRefused };
          if (!isLast || isRefused) return { ...before, sides, reading };
          return { sides, answered: findings, isStopped, reading };
        }),
      );
  }, [question]);
  useEffect(
    () => () => {
      asker.current?.close();
      asker.current = undefined;
    },
    [],
  );
  return known;
}
