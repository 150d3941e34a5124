export const ways = {
  why: "Why it is safe",
  cancel: "Cancel",
};
