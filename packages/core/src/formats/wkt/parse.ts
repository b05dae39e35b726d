/** An element of WKT: `KEYWORD["text", 12, OTHER[…]]`. */
export interface WktNode {
  keyword: string;
  texts: string[];
  numbers: number[];
  children: WktNode[];
}

/** The first element of a text of nested elements in square or round brackets; null where it is none, or is cut short. */
export function parseWkt(text: string): WktNode | null {
  let at = 0;
  const element = (depth: number): WktNode | null => {
    const head = /\s*([A-Za-z_][\w]*)\s*[[(]/y;
    head.lastIndex = at;
    const found = head.exec(text);
    if (!found || depth > 40) return null;
    at = head.lastIndex;
    const node: WktNode = { keyword: found[1].toUpperCase(), texts: [], numbers: [], children: [] };
    for (;;) {
      const rest = /\s*(?:"((?:[^"]|"")*)"|([+-]?[\d.]+(?:[eE][+-]?\d+)?)(?=\s*[,\])])|([\])])|(,))/y;
      rest.lastIndex = at;
      const part = rest.exec(text);
      if (part) {
        at = rest.lastIndex;
        if (part[1] !== undefined) node.texts.push(part[1].replaceAll('""', '"'));
        else if (part[2] !== undefined) node.numbers.push(Number(part[2]));
        else if (part[3]) return node;
        continue;
      }
      const inner = element(depth + 1);
      if (inner) {
        node.children.push(inner);
        continue;
      }
      // a bare word, such as the direction of an axis
      const word = /\s*[A-Za-z]\w*/y;
      word.lastIndex = at;
      if (!word.exec(text)) return null;
      at = word.lastIndex;
    }
  };
  return element(0);
}

/** The first element of one of some kinds, the outermost first. */
export function findNode(node: WktNode, keywords: string[]): WktNode | null {
  const queue = [node];
  for (let next = queue.shift(); next; next = queue.shift()) {
    if (keywords.includes(next.keyword)) return next;
    queue.push(...next.children);
  }
  return null;
}
