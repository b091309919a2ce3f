export { type Random, seeded } from '@/core/numeric/seeded';
