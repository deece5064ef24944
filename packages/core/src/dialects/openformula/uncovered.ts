import { byName } from "../shared/uncovered.ts";

/** Functions of OpenDocument 1.3 part 4, chapter 6, that are not covered, by why. */
export const openFormulaUncovered = byName({
  calendars: `datedif days360 easterday networkdays workday yearfrac`,
  chance: `rand randbetween`,
  "complex numbers": `complex imabs imaginary imargument imconjugate imcos imcosh imcot imcsc imcsch imdiv imexp imln imlog10 imlog2
    impower improduct imreal imsec imsech imsin imsinh imsqrt imsub imsum imtan`,
  databases: `daverage dcount dcounta dget dmax dmin dproduct dstdev dstdevp dsum dvar dvarp`,
  finance: `accrint accrintm amordegrc amorlinc coupdaybs coupdays coupdaysnc coupncd coupnum couppcd cumipmt cumprinc db
    ddb disc dollarde dollarfr duration effect euroconvert fv fvschedule intrate ipmt irr ispmt mduration mirr
    nominal nper npv oddfprice oddfyield oddlprice oddlyield pduration pmt ppmt price pricedisc pricemat pv rate
    received rri sln syd tbilleq tbillprice tbillyield vdb xirr xnpv yield yielddisc yieldmat`,
  mathematics: `acos acosh acot acoth asin asinh atan atan2 atanh besseli besselj besselk bessely bitand bitlshift bitor
    bitrshift bitxor combin combina cos cosh cot coth csc csch degrees delta erf erfc exp fact factdouble gamma
    gammadist gammainv gammaln gcd gestep ln log log10 logest loginv lognormdist multinomial pi radians sec sech
    seriessum sin sinh sqrtpi tan tanh`,
  "references, look-up and matrices": `address areas cell column columns current dde formula getpivotdata growth hlookup hyperlink index indirect info
    isformula isref lookup match mdeterm minverse mmult multiple.operations munit offset row rows sheet sheets
    transpose vlookup`,
  statistics: `avedev averagea averageifs b beta.dist betadist betainv binom.dist.range binomdist chidist chiinv chisqdist
    chisqinv chitest confidence convert correl countifs covar critbinom devsq expondist f fdist finv fisher
    fisherinv forecast frequency ftest gauss geomean harmean hypgeomdist intercept iso.ceiling kurt large lcm
    legacy.chidist legacy.fdist linest maxa median mina mode negbinomdist normdist norminv normsdist normsinv
    pearson percentile percentrank permut permutationa phi poisson prob quartile rank rsq skew skewp slope small
    standardize stdev stdeva stdevp stdevpa steyx subtotal sumifs sumproduct sumsq sumx2my2 sumx2py2 sumxmy2 tdist
    tinv trend trimmean ttest var vara varp varpa weibull ztest`,
  "the clock": `now today`,
});
