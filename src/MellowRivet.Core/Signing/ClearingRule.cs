using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Signing;

/// <summary>Who may put an open item right and enter it, outside an inspection (14 CFR 43.3, 43.7 and 43.9, from memory).</summary>
/// <param name="Categories">The categories of aircraft.</param>
/// <param name="Certificate">What they hold.</param>
/// <param name="OwnSerialOnly">True where the certificate holds for one airframe serial.</param>
/// <param name="Source">The rule.</param>
public sealed record ClearingRule(IReadOnlyList<Category> Categories, CertificateKind Certificate, bool OwnSerialOnly, RuleSource Source);
