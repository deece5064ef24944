/** Functions of OpenDocument 1.3 part 4, chapter 6, that are not covered yet. */
export const openFormulaUncovered: ReadonlySet<string> = new Set(
  `accrint accrintm acos acosh acot acoth address amordegrc amorlinc areas asin asinh atan atan2 atanh avedev averagea averageifs
  b besseli besselj besselk bessely beta.dist betadist betainv binom.dist.range binomdist bitand bitlshift
  bitor bitrshift bitxor cell chidist chiinv chisqdist chisqinv chitest column columns combin combina complex confidence convert
  correl cos cosh cot coth countifs coupdaybs coupdays coupdaysnc coupncd coupnum couppcd covar critbinom csc csch cumipmt
  cumprinc current datedif daverage days360 db dcount dcounta ddb dde degrees delta devsq dget disc
  dmax dmin dollarde dollarfr dproduct dstdev dstdevp dsum duration dvar dvarp easterday effect erf erfc euroconvert
  exp expondist f fact factdouble fdist finv fisher fisherinv forecast formula frequency ftest fv fvschedule gamma gammadist
  gammainv gammaln gauss gcd geomean gestep getpivotdata growth harmean hlookup hyperlink hypgeomdist
  imabs imaginary imargument imconjugate imcos imcosh imcot imcsc imcsch imdiv imexp imln imlog10 imlog2 impower improduct imreal
  imsec imsech imsin imsinh imsqrt imsub imsum imtan index indirect info intercept intrate ipmt irr isformula iso.ceiling
  ispmt isref kurt large lcm legacy.chidist legacy.fdist linest ln log log10 logest loginv lognormdist lookup match
  maxa mdeterm mduration median mina minverse mirr mmult mode multinomial multiple.operations munit negbinomdist
  networkdays nominal normdist norminv normsdist normsinv now nper npv oddfprice oddfyield oddlprice
  oddlyield offset pduration pearson percentile percentrank permut permutationa phi pi pmt poisson ppmt price pricedisc pricemat
  prob pv quartile radians rand randbetween rank rate received row rows rri rsq sec sech seriessum sheet sheets sin sinh skew
  skewp sln slope small sqrtpi standardize stdev stdeva stdevp stdevpa steyx subtotal sumifs sumproduct sumsq sumx2my2 sumx2py2
  sumxmy2 syd tan tanh tbilleq tbillprice tbillyield tdist tinv today transpose trend trimmean ttest var vara varp varpa vdb
  vlookup weibull workday xirr xnpv yearfrac yield yielddisc yieldmat ztest`.split(/\s+/),
);
