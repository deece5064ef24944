import { expect } from "@jest/globals";
import { type Connection, probe } from "@indigo-quill/engines";
import { type Dialect, sampleOf } from "indigo-quill";
import { pick, random } from "../../core/test/random.ts";

/** For each language how a date is read, and its tokens with what they are filled with. */
const readers: Readonly<
  Record<string, { read: (format: string) => string; fills: Readonly<Record<string, readonly string[]>> }>
> = {
  mariadb: {
    read: (format) => `concat(str_to_date(label, ${format}))`,
    fills: {
      ...{
        Y: ["2019", "19", "201"],
        y: ["19", "70"],
        m: ["4", "04", "13", "0"],
        c: ["12"],
        M: ["April", "ap", "Ma"],
        b: ["Apr", "April"],
      },
      ...{
        d: ["3", "31", "32", "0"],
        e: ["03"],
        D: ["3rd", "21st", "3"],
        j: ["60", "366", "400"],
        W: ["Monday", "mon", "M"],
        a: ["Mon"],
      },
      ...{
        H: ["5", "17", "24"],
        k: ["0"],
        h: ["5", "12", "13", "0"],
        I: ["12"],
        l: ["1"],
        p: ["AM", "pm", "xm"],
        i: ["30", "60"],
      },
      ...{ s: ["15"], S: ["59"], f: ["5", "123456", "1234567"], T: ["10:11:12", "1:2"], r: ["10:11:12 PM"], w: ["0", "3", "7"] },
      ...{ U: ["10", "54"], u: ["1"], V: ["10", "0"], v: ["52"], X: ["2019"], x: ["2019"], "%": ["%"], q: ["q"] },
    },
  },
  duckdb: {
    read: (format) => `cast(try_strptime(label, ${format}) as varchar)`,
    fills: {
      ...{
        Y: ["2019", "19", "201"],
        y: ["19", "70"],
        "-y": ["5"],
        m: ["4", "04", "13", "0"],
        "-m": ["12"],
        B: ["April", "ap"],
        b: ["Apr"],
      },
      ...{
        d: ["3", "31", "32", "0"],
        "-d": ["03"],
        j: ["60", "366", "400"],
        A: ["Monday", "mon"],
        a: ["Mon"],
        H: ["5", "17", "24"],
      },
      ...{
        I: ["5", "12", "13", "0"],
        "-I": ["1"],
        p: ["AM", "pm", "xm"],
        M: ["30", "60"],
        S: ["15"],
        f: ["5", "123456", "1234567"],
      },
      ...{
        g: ["5", "1234"],
        w: ["0", "7"],
        u: ["7", "0"],
        c: ["2019-04-03 10:11:12"],
        x: ["2019-04-03"],
        X: ["10:11:12"],
        "%": ["%"],
      },
    },
  },
};
const usual = ["%Y-%m-%d", "%d.%m.%Y", "%Y%m%d", "%d %b %Y", "%j %Y"];

/** Holds random date formats, over texts made for them and not quite so, to the engine; gives how many were read as dates. */
export async function expectFormats(connection: Connection, dialect: Dialect, seed: number, count = 60): Promise<number> {
  const next = random(seed);
  const { read, fills } = readers[dialect.id];
  const tokens = Object.keys(fills);
  let dates = 0;
  for (let i = 0; i < count; i++) {
    const separator = pick(next, ["-", "/", " ", "", ", ", "T", "  ", "."]);
    const some = Array.from({ length: 1 + Math.floor(next() * 4) }, () => `%${pick(next, tokens)}`);
    const format = next() < 0.4 ? pick(next, usual) : some.join(separator);
    const filled = () => format.replace(/%(-?.)/gu, (_, token: string) => pick(next, fills[token]));
    const frayed = () => pick(next, ["", " ", "\t"]) + filled() + pick(next, ["  ", "x", " 5", "\n"]);
    const labels = [filled(), filled(), filled(), frayed(), frayed(), filled().slice(0, -2), "", "x"];
    const expression = read(dialect.textLiteral(format));
    const { rows } = await probe(connection, dialect, expression, sampleOf(labels.map((label) => ({ label }))));
    dates += rows.filter(({ theirs }) => "value" in theirs && theirs.value !== null).length;
    const apart = rows
      .filter(({ ours, agree }) => ours && !agree)
      .map(({ row, ours, theirs }) => ({ label: labels[row], ours, theirs }));
    expect({ expression, apart }).toEqual({ expression, apart: [] });
  }
  return dates;
}
