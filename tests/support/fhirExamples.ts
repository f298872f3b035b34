/**
 * The examples of VisionPrescription in FHIR R4, as HL7 publishes them: 33123 (spectacles) and 33124 (contact lenses). Written down
 * from memory; the figures that are tested (power −2.75, back curve 8.7, diameter 14) are those of the published page.
 */
export const SPECTACLES_33123 = {
  resourceType: 'VisionPrescription',
  id: '33123',
  text: { status: 'generated', div: '<div xmlns="http://www.w3.org/1999/xhtml">Sample Contract resource with Provider reported VisionPrescription</div>' },
  identifier: [{ system: 'http://www.happysight.com/prescription', value: '15013' }],
  status: 'active',
  created: '2014-06-15',
  patient: { reference: 'Patient/example' },
  dateWritten: '2014-06-15',
  prescriber: { reference: 'Practitioner/example' },
  lensSpecification: [
    {
      product: { coding: [{ system: 'http://terminology.hl7.org/CodeSystem/ex-visionprescriptionproduct', code: 'lens' }] },
      eye: 'right',
      sphere: -2,
      prism: [{ amount: 0.5, base: 'down' }],
      add: 2,
    },
    {
      product: { coding: [{ system: 'http://terminology.hl7.org/CodeSystem/ex-visionprescriptionproduct', code: 'lens' }] },
      eye: 'left',
      sphere: -1,
      cylinder: -0.5,
      axis: 180,
      prism: [{ amount: 0.5, base: 'up' }],
      add: 2,
    },
  ],
};
const contact = (eye: string) => ({
  product: { coding: [{ system: 'http://terminology.hl7.org/CodeSystem/ex-visionprescriptionproduct', code: 'contact' }] },
  eye,
  add: 1.75,
  power: -2.75,
  backCurve: 8.7,
  diameter: 14,
  duration: { value: 1, unit: 'month', system: 'http://unitsofmeasure.org', code: 'month' },
  color: 'green',
  brand: 'OphthaGuard',
  note: [{ text: 'Shade treatment for extreme light sensitivity' }],
});
export const CONTACT_33124 = {
  ...SPECTACLES_33123,
  id: '33124',
  identifier: [{ system: 'http://www.happysight.com/prescription', value: '15014' }],
  lensSpecification: [contact('right'), contact('left')],
};
