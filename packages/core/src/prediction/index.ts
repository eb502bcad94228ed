export { costsFor, type ShownCost } from './costs.js';
export { type PredictedUse, Prediction } from './prediction.js';
