export { BenchCode as default } from '@/features/phone/bench-code';
