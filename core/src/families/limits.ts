/** More replicas of one item than this nobody draws from. */
export const MAX_REPLICAS = 1000;
