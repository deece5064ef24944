import { Decimal, type Double, type Value, lookup, roundHalfEven } from "../../values/index.ts";
import { roundDecimal, roundDouble } from "./arithmetic.ts";
import { doubleText, toDecimal, toDouble } from "./steps.ts";

/** The mark between thousands and the one before the fraction, by locale; others have "," and ".". */
const locales: Readonly<Record<string, readonly [string, string]>> = lookup(
  Object.fromEntries(
    (
      [
        ["", ".", "ar_sa sr_rs sr_yu"],
        ["", ",", "ca_es de_at el_gr eu_es fr_be fr_ca fr_ch fr_fr fr_lu gl_es hr_hr it_it nl_be nl_nl pl_pl pt_br pt_pt sl_si"],
        ["'", ".", "de_ch"],
        ["'", ",", "it_ch rm_ch"],
        [" ", ",", "cs_cz es_cr et_ee fi_fi ka_ge lv_lv mk_mk ru_ru sk_sk sv_fi sv_se"],
        ["\0", ",", "bg_bg"],
        [
          ".",
          ",",
          "be_by da_dk de_be de_de de_lu es_ar es_bo es_cl es_co es_ec es_es es_py es_uy es_ve fo_fo hu_hu id_id is_is lt_lt mn_mn nb_no no_no ro_ro ru_ua sq_al tr_tr uk_ua vi_vn",
        ],
      ] as const
    ).flatMap(([thousands, point, names]) => names.split(" ").map((name) => [name, [thousands, point] as const])),
  ),
);

export function format(value: Value, decimals: Value, locale: Value, isDouble: boolean): Value {
  const name = String(locale ?? "en_US").toLowerCase();
  const [thousands, point] = locales[name] ?? [",", "."];
  // The number of decimals is one of 32 bits.
  const size = Math.min(38, Math.max(0, Number(BigInt.asIntN(32, BigInt(decimals as number)))));
  const number = isDouble ? new Decimal(0n, 0) : roundDecimal(toDecimal(value) as Decimal, size);
  const text = isDouble ? fixedDouble((toDouble(value) as Double).value, size) : number.rounded(size).toString();
  const [whole, fraction] = text.replace("-", "").split(".");
  // In India it is hundreds above the first thousand.
  const places = /^(?:en_in|ta_in|te_in)$/.test(name) ? /\B(?=(?:\d\d)*\d{3}$)/g : /\B(?=(?:\d{3})+$)/g;
  return (text.startsWith("-") ? "-" : "") + whole.replace(places, thousands) + (fraction ? point + fraction : "");
}

const fixedDouble = (value: number, digits: number): string => {
  const rounded = roundDouble(value, digits, roundHalfEven);
  return (Decimal.parse(doubleText(rounded)) ?? Decimal.of(0)).rounded(digits).toString();
};
