/**
 * Orders names as people count: `frame2` before `frame10`, whatever the machine's language.
 *
 * Runs of digits compare by value, everything else by UTF-16 unit; names equal so far are told apart by fewer leading
 * zeros first, then by unit. Holds: a total order (antisymmetric, transitive), 0 only for identical strings.
 */
export function naturalOrder(a: string, b: string): number {
  let i = 0;
  let j = 0;
  let zeros = 0;
  while (i < a.length && j < b.length) {
    const unitA = a.charCodeAt(i);
    const unitB = b.charCodeAt(j);
    if (isDigit(unitA) && isDigit(unitB)) {
      const endA = digitsEnd(a, i);
      const endB = digitsEnd(b, j);
      const startA = skipZeros(a, i, endA);
      const startB = skipZeros(b, j, endB);
      const byLength = endA - startA - (endB - startB);
      if (byLength !== 0) return byLength;
      for (let k = 0; k < endA - startA; k++) {
        const byDigit = a.charCodeAt(startA + k) - b.charCodeAt(startB + k);
        if (byDigit !== 0) return byDigit;
      }
      if (zeros === 0) zeros = startA - i - (startB - j);
      i = endA;
      j = endB;
    } else {
      if (unitA !== unitB) return unitA - unitB;
      i++;
      j++;
    }
  }
  return a.length - i - (b.length - j) || zeros;
}

function isDigit(unit: number): boolean {
  return unit >= 48 && unit <= 57;
}

function digitsEnd(text: string, from: number): number {
  let end = from;
  while (end < text.length && isDigit(text.charCodeAt(end))) end++;
  return end;
}

/** Skips leading zeros but keeps the last digit, so that a lone 0 is still a number. */
function skipZeros(text: string, from: number, end: number): number {
  let start = from;
  while (start < end - 1 && text.charCodeAt(start) === 48) start++;
  return start;
}
