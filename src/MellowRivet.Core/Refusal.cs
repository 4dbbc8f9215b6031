namespace MellowRivet.Core;

/// <summary>Why something can't be recorded as asked, for beside the field it concerns.</summary>
/// <param name="Field">The input's name.</param>
/// <param name="Message">What is wrong and what would do, in words.</param>
public sealed record Refusal(string Field, string Message);
