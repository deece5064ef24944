/** Functions of XPath and XQuery Functions and Operators 3.1 that are not covered yet. */
export const xpathUncovered: ReadonlySet<string> = new Set(
  `adjust-date-to-timezone adjust-datetime-to-timezone adjust-time-to-timezone analyze-string array:fold-left array:fold-right
  array:for-each-pair array:insert-before array:put array:remove array:sort available-environment-variables base-uri
  collation-key collection current-date current-datetime current-time days-from-duration
  default-collation default-language doc doc-available document-uri element-with-id environment-variable   function-lookup function-name generate-id has-children hours-from-duration
  id idref implicit-timezone in-scope-prefixes innermost json-doc json-to-xml lang local-name
  local-name-from-qname map:find math:acos math:asin math:atan math:atan2 math:cos math:exp math:exp10 math:log math:log10 math:pi
  math:sin math:tan minutes-from-duration   months-from-duration name namespace-uri namespace-uri-for-prefix namespace-uri-from-qname nilled node-name outermost parse-ietf-date
  parse-json parse-xml parse-xml-fragment path prefix-from-qname qname random-number-generator resolve-qname resolve-uri root
  seconds-from-duration serialize static-base-uri timezone-from-date
  timezone-from-datetime timezone-from-time trace transform unparsed-text unparsed-text-available unparsed-text-lines uri-collection
  xml-to-json years-from-duration`.split(/\s+/),
);
