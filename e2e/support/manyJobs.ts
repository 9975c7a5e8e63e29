/** So many made-up jobs, sketched with nothing drawn, as records of the page's store. */
export const manyJobs = (count: number): readonly object[] =>
  Array.from({ length: count }, (_, i) => ({
    id: `many-${i + 1}`,
    number: String(1001 + i),
    name: `Gasket ${i + 1}`,
    customer: "Fernhollow line",
    material: "gasket sheet",
    thickness: "2 mm",
    quantity: 1,
    due: "",
    unit: "mm",
    state: "sketched",
    updated: 1,
  }));
