/** Lengths, angles and measures as text, in scene units. */
import { mmPerSceneUnit, type LengthUnit } from './units.ts';

/** How numbers are shown. */
export interface NumberStyle {
  readonly units: LengthUnit;
  /** Most digits after the point. */
  readonly decimals: number;
  /** Keep zeros at the end, so that columns line up. */
  readonly trailingZeros: boolean;
  /** Smallest part of an inch in `ft-in`: 2, 4, 8, 16, 32 or 64. */
  readonly fraction: number;
}

const MINUS = '−';

/** A plain number with at most `decimals` digits after the point. Never "-0". */
export function formatNumber(
  value: number,
  { decimals, trailingZeros }: Pick<NumberStyle, 'decimals' | 'trailingZeros'>,
): string {
  const fixed = Math.abs(value).toFixed(decimals);
  const short = trailingZeros || !fixed.includes('.') ? fixed : fixed.replace(/\.?0+$/, '');
  return Number(fixed) !== 0 && value < 0 ? MINUS + short : short;
}

/** `mm` as text in scene units, without the unit's name except in `ft-in`, where the marks are the number. */
export function formatLength(mm: number, style: NumberStyle): string {
  if (style.units === 'ft-in') return formatFeetInches(mm, style.fraction);
  return formatNumber(mm / mmPerSceneUnit(style.units), style);
}

/** `mm` with its unit: `120 mm`, `5' 3-1/2"`. */
export function formatLengthWithUnit(mm: number, style: NumberStyle): string {
  return style.units === 'ft-in' ? formatLength(mm, style) : `${formatLength(mm, style)} ${style.units}`;
}

/** The style for reading a measured length to a millionth of a millimetre, as far as the digits go. */
export const exactStyle = (style: NumberStyle): NumberStyle => ({
  ...style,
  decimals: Math.min(9, 6 + Math.ceil(Math.log10(mmPerSceneUnit(style.units)))),
  trailingZeros: false,
});

/** Digits after the point that a length is given to where the scene's are too few, in mm. */
const FINE_DECIMALS = 7;

/** `mm` as text in scene units, with more digits where the usual ones would hide that it is another number. */
export function formatLengthFinely(mm: number, style: NumberStyle): string {
  if (style.units === 'ft-in') return formatLength(mm, style);
  const more = {
    decimals: FINE_DECIMALS + Math.ceil(Math.log10(mmPerSceneUnit(style.units))),
    trailingZeros: false,
  };
  const value = mm / mmPerSceneUnit(style.units);
  const finer = formatNumber(value, more);
  return formatNumber(value, { ...style, trailingZeros: false }) === finer ? formatLength(mm, style) : finer;
}

/** Feet, inches and a fraction in lowest terms, to the nearest 1/`fraction` inch: `5' 3-1/2"`, `-7/8"`, `0"`. */
export function formatFeetInches(mm: number, fraction: number): string {
  const parts = Math.round((Math.abs(mm) / 25.4) * fraction);
  const feet = Math.floor(parts / (12 * fraction));
  const inches = Math.floor((parts - feet * 12 * fraction) / fraction);
  let top = parts % fraction;
  let bottom = fraction;
  while (top > 0 && top % 2 === 0) {
    top /= 2;
    bottom /= 2;
  }
  const inchText = top === 0 ? `${inches}` : inches === 0 ? `${top}/${bottom}` : `${inches}-${top}/${bottom}`;
  const text = feet === 0 ? `${inchText}"` : inchText === '0' ? `${feet}'` : `${feet}' ${inchText}"`;
  return mm < 0 && parts > 0 ? MINUS + text : text;
}

/** Degrees with the sign, to at most `decimals` digits. */
export function formatAngle(degrees: number, decimals = 4): string {
  return `${formatNumber(degrees, { decimals, trailingZeros: false })}°`;
}

/** An area (power 2) or a volume (power 3) in scene units, thousands set apart by thin spaces: `2 361 840.00 mm³`. */
export function formatMeasure(value: number, power: 2 | 3, style: NumberStyle): string {
  const unit = style.units === 'ft-in' ? 'in' : style.units;
  const scaled = value / mmPerSceneUnit(unit) ** power;
  const small = Math.max(0, Math.min(9, Math.ceil(-Math.log10(Math.abs(scaled) || 1)) + 3));
  const text = formatNumber(scaled, { decimals: Math.max(2, style.decimals, small), trailingZeros: true });
  const [whole, rest] = text.split('.');
  const grouped = whole!.replace(/\B(?=(\d{3})+$)/g, '\u2009');
  return `${grouped}${rest ? `.${rest}` : ''} ${unit}${power === 2 ? '²' : '³'}`;
}
