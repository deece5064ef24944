import { useEffect, useRef, useState } from "react";
import { type End, Asker } from "./asker.ts";
import type { Findings, Question, SideFindings } from "./findings.ts";

interface Known {
  /** What is wrong with the expressions, as soon as it is known. */
  readonly sides: readonly SideFindings[] | undefined;
  /** The last question that was answered, as far as it was; never one whose file was refused, which is told where it is loaded. */
  readonly answered: Partial<Findings>;
  /** What was last told of it: that it is late, or took too long. */
  readonly end: End;
}

const nothingKnown: Known = {
  sides: undefined,
  answered: {},
  end: "told",
};

/** The newest findings; the ones before are shown until then. */
export function useFindings(question: Question): Known {
  const [known, setKnown] = useState(nothingKnown);
  const asker = useRef<Asker>(undefined);
  useEffect(() => {
    if (asker.current) asker.current.ask(question);
    else
      asker.current = new Asker(question, (findings, end) =>
        setKnown((before) => {
          const { isRefused = false, sides = before.sides } = findings;
          if (end === "soon" || isRefused) return { ...before, sides };
          // Of what is late, or gave way to a newer question, the values may not be there: those before are better than none.
          if (end !== "stopped" && !findings.table) return { ...before, sides, end };
          return { sides, answered: findings, end };
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
