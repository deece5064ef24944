import { byName } from "../shared/uncovered.ts";

/** Functions of XPath and XQuery Functions and Operators 3.1 that are not covered, by why. */
export const xpathUncovered = byName({
  JSON: `json-doc json-to-xml parse-json xml-to-json`,
  chance: `random-number-generator`,
  collations: `collation-key default-collation`,
  zones: `adjust-date-to-timezone adjust-datetime-to-timezone adjust-time-to-timezone current-date current-datetime
    current-time implicit-timezone parse-ietf-date timezone-from-date timezone-from-datetime timezone-from-time`,
  "functions of arrays, maps and functions": `array:fold-left array:fold-right array:for-each-pair array:insert-before array:put array:remove array:sort
    function-lookup function-name map:find`,
  "nodes, documents and the environment": `analyze-string available-environment-variables base-uri collection default-language doc doc-available
    document-uri element-with-id environment-variable generate-id has-children id idref in-scope-prefixes innermost
    lang local-name local-name-from-qname name namespace-uri namespace-uri-for-prefix namespace-uri-from-qname
    nilled node-name outermost parse-xml parse-xml-fragment path prefix-from-qname qname resolve-qname resolve-uri
    root serialize static-base-uri trace transform unparsed-text unparsed-text-available unparsed-text-lines
    uri-collection`,
});
