using MellowRivet.Core;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;

namespace MellowRivet.Store.Passports;

/// <summary>What stands in a passport for whoever opens it without knowing what it is.</summary>
internal static class PassportReadme
{
    public static string Of(PassportManifest manifest, TimeProvider clock) => $"""
        The papers of aircraft {manifest.Aircraft.Registration}
        {manifest.Aircraft.Type}, serial number {manifest.Aircraft.SerialNumber}

        Made on {clock.DayOf(manifest.MadeAt):yyyy-MM-dd} by {manifest.Shop.Name}.

        What this is
          Everything that shop kept of this aircraft: its file, parts, times, what falls due, what is open, inspections with every task,
          reading and answer, what was found with its photos, sounds and videos, engine logs, bulletins and what was done about them, and
          all signed records. It is meant to go with the aircraft.

        What to read without any program
          to-read/     the signed records and other papers as PDF
          photos/      photos: the original as the camera made it, and smaller copies (.large, .thumb) beside it.
                       Originals may say where they were taken.
          sounds/ videos/ logs/ documents/    as they were recorded, or came

        For programs
          data/        one file for each kind of row, one row a line, as JSON
          manifest.json    every file with its length and SHA-256, and every signed record by its hash
          manifest.sig     the shop's signature over manifest.json (ECDSA, P-256, SHA-256, over "mellow-rivet passport", a line feed and
                           the text; r and s side by side, in base64)

        How to find out whether anything was changed
          With the program, without any shop:  ./rivet verify THIS-FILE
          Without it: take the SHA-256 of each file and compare it with manifest.json; check the signature with the public key in
          data/keys.jsonl whose SHA-256 is
            {ShopKey.ToCompare(manifest.Shop.Fingerprint)} …
          Then compare that fingerprint with the one at the foot of a printed entry of that shop, or ask the shop: a stranger can make a
          passport of their own, but not with this key.

        How another shop goes on from here
          "Take in an aircraft's file", or ./rivet import THIS-FILE. The records stay what they are: signed elsewhere.

        What is not in it
          Surveys before a purchase: they are the buyer's. What came of one with the purchase is open on the aircraft.
          Parts that are on another aircraft now took along what hangs on them. People are named with their certificates, and have no
          account. The shop's own worksheets, rules, prices of hours and links it gave out stay with it.
        {(manifest.Missing.Count == 0 ? "" : $"  {manifest.Missing.Count} file(s) that its rows name were gone at that shop already.\n")}
        """;
}
