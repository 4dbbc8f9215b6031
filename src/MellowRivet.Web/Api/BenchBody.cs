using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.Features;

namespace MellowRivet.Web.Api;

/// <summary>Reads the body of a stateless call, and answers a bad one by naming each bad field and what it would accept.</summary>
internal static class BenchBody
{
    private const long MostBytes = 256 * 1024;

    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        NumberHandling = JsonNumberHandling.Strict,
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
    };

    /// <summary>Reads the body and answers with what the call makes of it.</summary>
    public static async Task<IResult> AnswerAsync<T>(HttpRequest request, Func<T, Problems, object?> call)
    {
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = MostBytes;
        if (request.ContentLength > MostBytes)
            return Results.Problem(statusCode: StatusCodes.Status413PayloadTooLarge,
                title: $"The body is larger than {MostBytes / 1024} kB.");

        var problems = new Problems();
        T? body = default;
        try
        {
            body = await JsonSerializer.DeserializeAsync<T>(request.Body, Options, request.HttpContext.RequestAborted);
            if (body is null)
                problems.Add("body", "A JSON object is wanted.");
        }
        catch (JsonException problem)
        {
            problems.Add(problem.Path is null or "$"
                ? "body"
                : problem.Path.TrimStart('$', '.'),
                $"This can't be read as what the field takes ({typeof(T).Name}): {FirstSentence(problem.Message)}");
        }
        catch (BadHttpRequestException problem) when (problem.StatusCode == StatusCodes.Status413PayloadTooLarge)
        {
            return Results.Problem(statusCode: problem.StatusCode, title: $"The body is larger than {MostBytes / 1024} kB.");
        }
        var answer = body is null || problems.Any ? null : call(body, problems);
        return problems.Any
            ? Results.ValidationProblem(problems.ByField, title: "Some fields can't be taken as they are.")
            : Results.Ok(answer);
    }

    private static string FirstSentence(string message) => message.Split(" Path:")[0];
}

/// <summary>What is wrong with a body, field by field.</summary>
internal sealed class Problems
{
    private readonly Dictionary<string, List<string>> byField = [];

    public bool Any => byField.Count > 0;
    public IDictionary<string, string[]> ByField => byField.ToDictionary(named => named.Key, named => named.Value.ToArray());

    public void Add(string field, string message) =>
        (byField.TryGetValue(field, out var messages) ? messages : byField[field] = []).Add(message);

    /// <summary>The number if it is finite and within bounds; else names the field and returns the fallback.</summary>
    public double Number(string field, double? value, double least, double most, string unit, double fallback)
    {
        if (value is { } number && double.IsFinite(number) && number >= least && number <= most)
            return number;
        Add(field, $"A number from {least} to {most} {unit} is wanted.");
        return fallback;
    }
}
