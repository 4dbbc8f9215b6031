// Numbers as the shop reckons and writes them.

/** Rounded to decimals, to the even one where it lies between. */
export const rounded = (number, digits) => {
  const power = 10 ** digits;
  const scaled = number * power;
  const floor = Math.floor(scaled);
  const rest = scaled - floor;
  return (rest < 0.5 || (rest === 0.5 && floor % 2 === 0) ? floor : floor + 1) / power;
};

/** Written with a format such as 0.0#: so many decimals at least, and so many at most; what lies between goes up. */
export const written = (number, format) => {
  const decimals = format.split('.')[1] ?? '';
  const least = decimals.replace(/#/g, '').length;
  const [digits, exponent] = Math.abs(number).toExponential(14).split('e');
  const all = digits.replace('.', '');
  // Where the point stands in the digits, and how many of them stay.
  const point = Number(exponent) + 1;
  const keeps = point + decimals.length;
  const zeros = '0'.repeat(Math.max(0, -point));
  const kept = (zeros + all).slice(0, Math.max(0, keeps + zeros.length)) || '0';
  const next = keeps < 0 ? '0' : (all[keeps] ?? '0');
  const whole = (BigInt(kept.padEnd(keeps + zeros.length, '0')) + (next >= '5' ? 1n : 0n)).toString().padStart(decimals.length + 1, '0');
  const [before, behind] = decimals.length ? [whole.slice(0, -decimals.length), whole.slice(-decimals.length)] : [whole, ''];
  const trimmed = behind.slice(0, least) + behind.slice(least).replace(/0+$/, '');
  const sign = (number < 0 || Object.is(number, -0)) && all !== '0'.repeat(15) ? '-' : '';
  return sign + before + (trimmed ? `.${trimmed}` : '');
};
