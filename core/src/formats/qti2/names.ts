/** Names and namespaces of QTI 2, shared by its reader and its writer. */
export const QTI21_NAMESPACE = 'http://www.imsglobal.org/xsd/imsqti_v2p1';
export const QTI21_SCHEMA = 'http://www.imsglobal.org/xsd/qti/qtiv2p1/imsqti_v2p1.xsd';
export const TEMPLATE_BASE = 'http://www.imsglobal.org/question/qti_v2p1/rptemplates/';
export const MATHML_NAMESPACE = 'http://www.w3.org/1998/Math/MathML';
export const CP_NAMESPACE = 'http://www.imsglobal.org/xsd/imscp_v1p1';
export const LOM_NAMESPACE = 'http://ltsc.ieee.org/xsd/LOM';

/** Marks a rubric block that speaks for the whole test rather than for its section. */
export const WHOLE_TEST_USE = 'instructions';
