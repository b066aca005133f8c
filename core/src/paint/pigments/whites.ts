import { base, edge, scatter, tail } from './bands.ts';
import { blended, single, type PigmentDefinition } from './definition.ts';

/** Whites: near-zero K but for the violet edge of the oxide and the yellow of the oil. */
export const WHITES: readonly PigmentDefinition[] = [
  single(
    'titanium-white',
    [2.05, 22, 'medium', 'I'],
    { masstone: [96.8, -0.5, 2.4], tint: [96.8, -0.5, 2.4] },
    [edge(397, 6.5, 0.16), tail(62, 0.0013), base(0.00011)],
    scatter(1, 0.55),
    'rutile: band gap near 400 nm, high even scattering (the unit of the catalogue); warmed by the oil',
  ),
  single(
    'zinc-white',
    [2.3, 15, 'slow', 'I'],
    { masstone: [95.6, -0.5, 1.6], tint: [96.7, -0.5, 2.2] },
    [edge(376, 6, 0.06), tail(60, 0.0008), base(0.00011)],
    scatter(0.3, 1.3),
    'zinc oxide: band gap below 380 nm, so the violet is clear and tints are cooler; weak fine-grained scattering',
  ),
  single(
    'lead-white',
    [3.1, 12, 'fast', 'I'],
    { masstone: [95.8, -0.6, 4.2], tint: [96.5, -0.5, 2.7] },
    [edge(380, 9, 0.02), tail(80, 0.0032), base(0.00016)],
    scatter(0.5, 0.5),
    'basic lead carbonate: no visible band, lower index than rutile; the yellow of its oil shows most',
  ),
  single(
    'unbleached-titanium',
    [1.9, 24, 'medium', 'I'],
    { masstone: [86, 2.2, 12], tint: [93.8, 0.2, 5.5] },
    [edge(402, 8, 0.4), tail(95, 0.032), base(0.0035)],
    scatter(0.85, 0.5),
    'titanium dioxide tinted by traces of iron: a long brownish tail on the rutile edge',
  ),
  blended(
    'titanium-zinc-white',
    [2.2, 18, 'medium', 'I'],
    { 'titanium-white': 0.5, 'zinc-white': 0.5 },
    'half titanium white, half zinc white',
  ),
  blended(
    'mixing-white',
    [1.6, 20, 'medium', 'I'],
    { 'titanium-white': 0.12, 'zinc-white': 0.58 },
    'mostly zinc with little titanium and clear extender: deliberately weak',
  ),
];
