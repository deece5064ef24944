import { Failure, type Program, type Sample, type TextRange, message } from "indigo-quill";
import { rulerOf, visibleText } from "indigo-quill/authoring";
import { Cell } from "./cells.tsx";

interface TracePanelProps {
  readonly program: Program;
  readonly sample: Sample;
  /** 0-based. */
  readonly row: number;
}

/** Every sub-expression with its value on a row, and a ruler for each extraction. */
export function TracePanel({ program, sample, row }: TracePanelProps) {
  if (!program.ok) return <p className="quiet">{program.dialect.title}: nothing to trace until the expression can be read.</p>;
  const steps = program.trace(sample, row);
  return (
    <section className="trace" aria-label={`Trace in ${program.dialect.title}`}>
      <h3>{program.dialect.title}</h3>
      <ol>
        {steps.map((step) => {
          const failure = step.born ? step.values.find((value) => value instanceof Failure) : undefined;
          return (
            <li key={`${step.range.start}-${step.range.end}-${step.depth}`} className={step.born ? "born" : ""}>
              <code style={{ paddingLeft: `${step.depth * 14}px` }}>{visibleText(step.text, false)}</code>
              <output>
                {step.values.length === 0 && <span className="quiet">not needed</span>}
                {step.values.slice(0, 6).map((value, i) => (
                  <span key={i} className="value">
                    <Cell value={value} dialect={program.dialect} />
                  </span>
                ))}
                {step.values.length > 6 && ` and ${step.values.length - 6} more`}
              </output>
              {failure instanceof Failure && <p className="failure">{message(failure)}</p>}
              {step.taken && <Ruler text={step.taken.text} taken={step.taken.range} />}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

/** A text, character by character, with positions counted from 0 and from 1, and the part that was taken. */
function Ruler({ text, taken }: { readonly text: string; readonly taken: TextRange }) {
  const { cells, before, after } = rulerOf(text, taken);
  return (
    <table className="ruler" aria-label={`Positions in ${text.slice(0, 200)}`}>
      <tbody>
        {[0, 1].map((first) => (
          <tr key={first} className="numbers">
            <th scope="row">from {first}</th>
            {cells.map(({ position }) => (
              <td key={position}>{position + first}</td>
            ))}
          </tr>
        ))}
        <tr className="chars">
          <th scope="row">{before > 0 ? "taken …" : "taken"}</th>
          {cells.map(({ shown, position, taken: inside }) => (
            <td key={position} className={inside ? "inside" : ""}>
              {shown}
            </td>
          ))}
          {after > 0 && <td className="quiet">… {after} more</td>}
        </tr>
      </tbody>
    </table>
  );
}
