export { type PredictedUse, Prediction } from './prediction.js';
