import { visibleText } from "indigo-quill/authoring";
import type { PatternPart } from "indigo-quill/patterns";
import { Cell } from "./cells.tsx";
import type { RulerFindings, TraceFindings } from "./findings.ts";

/** Every sub-expression with its value on a row, and a ruler for each extraction. */
export function TracePanel({ title, steps }: TraceFindings) {
  if (!steps) return <p className="quiet">{title}: nothing to trace until the expression can be read.</p>;
  return (
    <section className="trace" aria-label={`Trace in ${title}`}>
      <h3>{title}</h3>
      <ol>
        {steps.map((step) => (
          <li key={step.key} className={step.isBorn ? "born" : ""}>
            <code style={{ paddingLeft: `${step.depth * 14}px` }}>{step.text}</code>
            <output>
              {step.turns === 0 && <span className="quiet">not needed</span>}
              {step.values.map((value, i) => (
                <span key={i} className="value">
                  <Cell value={value} />
                </span>
              ))}
              {step.became && (
                <span className="value">
                  <span className="quiet">{step.became.how} as</span> <Cell value={step.became.value} />
                </span>
              )}
              {step.turns > step.values.length && ` and ${step.turns - step.values.length} more`}
            </output>
            {step.failure !== undefined && <p className="failure">{step.failure}</p>}
            {step.ruler && <Ruler {...step.ruler} />}
            {step.parts.length > 0 && <PatternParts parts={step.parts} />}
          </li>
        ))}
      </ol>
    </section>
  );
}

/** A pattern part by part, with what each part fitted. */
function PatternParts({ parts }: { readonly parts: readonly PatternPart[] }) {
  return (
    <table className="parts" aria-label="The pattern in words">
      <tbody>
        {parts.map(({ text, says, depth, matched }, i) => (
          <tr key={i}>
            <th scope="row" style={{ paddingLeft: `${depth * 12}px` }}>
              <code>{text === undefined ? "" : visibleText(text, false)}</code>
            </th>
            <td>{says}</td>
            <td>{matched !== undefined && <code>{visibleText(matched, true)}</code>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A text, character by character, with positions counted from 0 and from 1, and the part that was taken. */
function Ruler({ cells, before, after }: RulerFindings) {
  return (
    <table className="ruler" aria-label={`Positions in ${cells.map(({ shown }) => shown).join("")}`}>
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
          {cells.map(({ shown, position, taken }) => (
            <td key={position} className={taken ? "inside" : ""}>
              {shown}
            </td>
          ))}
          {after > 0 && <td className="quiet">… {after} more</td>}
        </tr>
      </tbody>
    </table>
  );
}
