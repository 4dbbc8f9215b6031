using System.Security.Cryptography;
using System.Text;
using Xunit.Sdk;
using Xunit.v3;

[assembly: TestCaseOrderer(typeof(MellowRivet.Tests.SameOrder))]

namespace MellowRivet.Tests;

/// <summary>
/// One order of the tests of a class, on every machine: left to itself it follows from where the checkout lies, and a test that leans on
/// another one falls elsewhere. RIVET_ORDER shuffles: the same word, the same order.
/// </summary>
public sealed class SameOrder : ITestCaseOrderer
{
    private static readonly string Word = Environment.GetEnvironmentVariable("RIVET_ORDER") ?? "";

    public IReadOnlyCollection<T> OrderTestCases<T>(IReadOnlyCollection<T> testCases) where T : notnull, ITestCase =>
        [.. testCases.OrderBy(test => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(Word + test.TestCaseDisplayName))))];
}
