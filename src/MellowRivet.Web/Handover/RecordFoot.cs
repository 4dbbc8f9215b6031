using MellowRivet.Core.Records;

namespace MellowRivet.Web.Handover;

/// <summary>What stands under every record on paper: how far the chain is, and whose key signed it.</summary>
internal static class RecordFoot
{
    /// <param name="record">The record.</param>
    /// <param name="head">How far this shop's chain is now.</param>
    public static string Of(SignedRecord record, ChainHead head) =>
        (record.IsElsewhere ? "signed elsewhere" : $"head of the chain {head}")
        + (record.KeyFingerprint is { } key ? $" · shop’s key {ShopKey.ToCompare(key)}" : "");
}
